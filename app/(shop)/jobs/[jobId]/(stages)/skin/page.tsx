import { SkinPage } from '@/web/skin/skin-page'

export const metadata = { title: 'The skin' }

export default function SkinRoute() {
  return <SkinPage />
}
