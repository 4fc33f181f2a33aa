import { memberCalendar } from '@/web/actions/calendar'

export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  return memberCalendar((await params).token)
}
