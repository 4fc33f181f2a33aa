import { readFleetFile } from '@/web/actions/reads'

export async function GET(_request: Request, { params }: { params: Promise<{ fleetId: string }> }): Promise<Response> {
  return readFleetFile((await params).fleetId)
}
