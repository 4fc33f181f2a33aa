import { listScans } from '@/web/actions/scans'

export async function GET(_request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return listScans((await params).jobId)
}
