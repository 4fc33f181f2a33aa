import { layingCardsPdf } from '@/web/actions/job-papers'

export async function GET(_request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return layingCardsPdf((await params).jobId)
}
