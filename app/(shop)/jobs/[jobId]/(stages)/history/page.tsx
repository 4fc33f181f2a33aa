import { History } from '@/web/job/history'

export const metadata = { title: 'History' }

export default function HistoryPage() {
  return <History />
}
