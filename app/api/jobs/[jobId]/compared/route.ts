import { readCompared } from '@/web/actions/reads'

export async function GET(_request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return readCompared((await params).jobId)
}
