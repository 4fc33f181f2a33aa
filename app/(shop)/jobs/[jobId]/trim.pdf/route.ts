import { trimPlanPdf } from '@/web/actions/job-papers'

export async function GET(_request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return trimPlanPdf((await params).jobId)
}
