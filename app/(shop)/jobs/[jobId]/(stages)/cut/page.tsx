import { CuttingPage } from '@/web/roll/cutting'

export const metadata = { title: 'Cutting' }

export default function CutRoute() {
  return <CuttingPage />
}
