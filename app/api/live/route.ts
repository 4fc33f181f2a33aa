import { openLive } from '@/web/actions/live'

export const dynamic = 'force-dynamic'

export async function GET(request: Request): Promise<Response> {
  return openLive(request)
}
