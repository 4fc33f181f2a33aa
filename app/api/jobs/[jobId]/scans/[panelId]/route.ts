import { removeScan, showScan, takeScan } from '@/web/actions/scans'

interface Context {
  params: Promise<{ jobId: string; panelId: string }>
}
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { jobId, panelId } = await params
  return showScan(jobId, panelId)
}
export async function PUT(request: Request, { params }: Context): Promise<Response> {
  const { jobId, panelId } = await params
  return takeScan(request, jobId, panelId)
}
export async function DELETE(request: Request, { params }: Context): Promise<Response> {
  const { jobId, panelId } = await params
  return removeScan(request, jobId, panelId)
}
