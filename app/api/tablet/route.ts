import { changeInAtTablet, forgetTabletPin, setTabletPin, tabletPeople } from '@/web/actions/tablet'

export const GET = (request: Request) => tabletPeople(request)
export const PUT = (request: Request) => setTabletPin(request)
export const POST = (request: Request) => changeInAtTablet(request)
export const DELETE = (request: Request) => forgetTabletPin(request)
