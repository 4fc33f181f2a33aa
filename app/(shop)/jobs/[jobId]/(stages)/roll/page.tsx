import { Roll } from '@/web/roll/roll'

export const metadata = { title: 'Roll' }

export default function RollRoute() {
  return <Roll />
}
