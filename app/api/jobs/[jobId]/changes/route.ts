import { readChanges } from '@/web/actions/live'

export async function GET(request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return readChanges(request, (await params).jobId)
}
