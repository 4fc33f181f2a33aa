import { jobCalendarFile } from '@/web/actions/calendar'

export async function GET(_request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return jobCalendarFile((await params).jobId)
}
