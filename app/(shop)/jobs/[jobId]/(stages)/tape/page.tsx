import { Tape } from '@/web/tape/tape'

export const metadata = { title: 'Tape' }

export default function TapeRoute() {
  return <Tape />
}
