import { readFleetHead } from '@/web/actions/reads'

export async function GET(_request: Request, { params }: { params: Promise<{ fleetId: string }> }): Promise<Response> {
  return readFleetHead((await params).fleetId)
}
