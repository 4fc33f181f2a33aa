'use client'

import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import Nav from 'react-bootstrap/Nav'
import Navbar from 'react-bootstrap/Navbar'
import Link from 'next/link'
import { usePathname, useRouter } from 'next/navigation'
import { setUnits } from '@/web/actions/shop'
import { deviceStore } from '@/web/job/device-store'
import { tellWorker } from '@/web/offline/keep-offline'
import { call } from '@/web/kit/call'
import { useHydrated } from '@/web/kit/use-hydrated'
import './top-bar.scss'

interface Units {
  lengthUnit: 'mm' | 'cm' | 'in'
  tempUnit: 'C' | 'F'
  locale: 'en-GB' | 'en-US'
}

export function TopBar({
  shop,
  town,
  name,
  role,
  units,
}: {
  shop: string
  town: string
  name: string
  role: string
  units: Units
}) {
  const path = usePathname()
  const router = useRouter()
  const alive = useHydrated()
  const change = async (part: Partial<Units>) => {
    await call(setUnits, part)
    router.refresh()
  }
  const out = async () => {
    const waiting = (await (await deviceStore()).waiting()).length
    const asked = `${waiting} ${waiting === 1 ? 'entry waits' : 'entries wait'} on this device to be sent. Sign out all the same?`
    if (waiting > 0 && !window.confirm(asked)) return
    tellWorker({ kind: 'forget' })
    await fetch('/api/auth/sign-out', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' })
    router.push('/sign-in')
    router.refresh()
  }
  const at = (href: string) =>
    path === href || (href === '/' && path.startsWith('/jobs')) ? ('page' as const) : undefined
  return (
    <Navbar as="header" className="topbar">
      <Link href="/" className="brand d-flex gap-2 align-items-center">
        <svg width="22" height="22" viewBox="0 0 32 32" aria-hidden>
          <path d="M5 4h22v10c0 8-5 12-11 15C10 26 5 22 5 14z" fill="none" stroke="#d7ae52" strokeWidth="2.5" />
          <circle cx="16" cy="13" r="2.5" fill="#d7ae52" />
        </svg>
        Cuirass
      </Link>
      <Nav as="nav" className="d-flex gap-3" aria-label="Main">
        <Link href="/" aria-current={at('/')}>
          Yard
        </Link>
        <Link href="/rack" aria-current={at('/rack')}>
          Rack
        </Link>
        <Link href="/fleet" aria-current={path.startsWith('/fleet') ? 'page' : undefined}>
          Fleet
        </Link>
        <Link href="/vehicles" aria-current={at('/vehicles')}>
          Vehicles
        </Link>
        <Link href="/shop" aria-current={at('/shop')}>
          Shop
        </Link>
      </Nav>
      <span className="ms-auto d-flex flex-wrap gap-3 align-items-center small">
        <span className="d-none d-md-inline">
          {shop}
          {town && `, ${town}`}
        </span>
        <Form.Select
          disabled={!alive}
          aria-label="Length unit"
          value={units.lengthUnit}
          onChange={(e) => void change({ lengthUnit: e.target.value as Units['lengthUnit'] })}
        >
          <option value="mm">mm</option>
          <option value="cm">cm</option>
          <option value="in">in</option>
        </Form.Select>
        <Form.Select
          disabled={!alive}
          aria-label="Temperature unit"
          value={units.tempUnit}
          onChange={(e) => void change({ tempUnit: e.target.value as Units['tempUnit'] })}
        >
          <option value="C">°C</option>
          <option value="F">°F</option>
        </Form.Select>
        <Form.Select
          disabled={!alive}
          aria-label="Words"
          value={units.locale}
          onChange={(e) => void change({ locale: e.target.value as Units['locale'] })}
        >
          <option value="en-GB">bonnet</option>
          <option value="en-US">hood</option>
        </Form.Select>
        <span className="d-none d-md-inline">
          {name}, {role}
        </span>
        <Button variant="link" size="sm" onClick={() => void out()}>
          Sign out
        </Button>
      </span>
    </Navbar>
  )
}
