import type { ReactNode } from 'react'
import { requireMember } from '@/web/actions/session'
import { KeepOffline } from '@/web/offline/keep-offline'
import { TopBar } from '@/web/people/top-bar'

export default async function ShopLayout({ children }: { children: ReactNode }) {
  const { shop, who, units } = await requireMember()
  return (
    <>
      <a className="skip" href="#main">
        Skip to the work
      </a>
      <TopBar shop={shop.name} town={shop.town} name={who.name} role={who.role} units={units} />
      {children}
      <KeepOffline />
    </>
  )
}
