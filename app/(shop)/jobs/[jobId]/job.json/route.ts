import { exportJob } from '@/web/actions/job-files'

export async function GET(_request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return exportJob((await params).jobId)
}
