import { readFleets } from '@/web/actions/reads'

export async function GET(): Promise<Response> {
  return readFleets()
}
