import { exportLedger } from '@/web/actions/job-files'

export async function GET(_request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return exportLedger((await params).jobId)
}
