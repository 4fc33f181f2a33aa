import { ownOrigins } from '@/db/auth'
import { environment } from '@/db/environment'

/** Whether a writing request was sent by a page of another origin than the one people use this server under. */
export function fromOutside(request: Request): boolean {
  const origin = request.headers.get('origin')
  if (!origin) return request.headers.get('sec-fetch-site') === 'cross-site'
  const own = ownOrigins(environment().APP_URL)
  if (own.length > 0) return !own.includes(origin)
  try {
    return new URL(origin).host !== request.headers.get('host')
  } catch {
    return true
  }
}
