import { showPhoto } from '@/web/actions/photos'

export async function GET(_request: Request, { params }: { params: Promise<{ photoId: string }> }): Promise<Response> {
  return showPhoto((await params).photoId)
}
