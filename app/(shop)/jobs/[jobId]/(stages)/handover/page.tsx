import { Handover } from '@/web/handover/handover'

export const metadata = { title: 'Handover' }

export default function HandoverRoute() {
  return <Handover />
}
