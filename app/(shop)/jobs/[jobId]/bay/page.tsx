import { Bay } from '@/web/bay/bay'

export const metadata = { title: 'Bay' }

export default function BayRoute() {
  return <Bay />
}
