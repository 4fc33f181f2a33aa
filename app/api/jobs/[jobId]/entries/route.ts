import { takeEntries } from '@/web/actions/entries'

export async function POST(request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return takeEntries(request, (await params).jobId)
}
