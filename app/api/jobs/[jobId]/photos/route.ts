import { takePhoto } from '@/web/actions/photos'

export async function POST(request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> {
  return takePhoto(request, (await params).jobId)
}
