import { WalkaroundView } from '@/web/walkaround/walkaround'

export const metadata = { title: 'Walkaround' }

export default function WalkaroundRoute() {
  return <WalkaroundView />
}
