import { NextResponse, type NextRequest } from 'next/server'

/** Half a year: long enough to count, short enough to leave again. */
const HSTS = 'max-age=15552000; includeSubDomains'

/** Whether a request names the address people use this server under. A health check may come under any name. */
export function hostIsOurs(headers: Headers, path: string, appUrl: string | undefined): boolean {
  if (appUrl === undefined || path === '/api/health') return true
  const own = new URL(appUrl).host
  const names = [own, own.replace('127.0.0.1', 'localhost')]
  return ['host', 'x-forwarded-host'].every((name) => {
    const value = headers.get(name)
    return value === null || names.includes(value)
  })
}

/** No page may fetch, frame or send anything outside its own origin; scripts run by nonce only. */
export function proxy(request: NextRequest) {
  const appUrl = process.env.APP_URL
  if (!hostIsOurs(request.headers, request.nextUrl.pathname, appUrl))
    return new NextResponse('This server is not known under that name.', { status: 421 })
  const nonce = btoa(crypto.randomUUID())
  const dev = process.env.NODE_ENV === 'development'
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
  const headers = new Headers(request.headers)
  headers.set('x-nonce', nonce)
  headers.set('content-security-policy', policy)
  const response = NextResponse.next({ request: { headers } })
  response.headers.set('content-security-policy', policy)
  response.headers.set('x-content-type-options', 'nosniff')
  response.headers.set('referrer-policy', 'same-origin')
  if (appUrl?.startsWith('https:')) response.headers.set('strict-transport-security', HSTS)
  return response
}

export const config = { matcher: ['/((?!_next/static|_next/image|favicon.ico|icon.svg).*)'] }
