import { layoutFile } from '@/web/actions/job-papers'

type Context = { params: Promise<{ jobId: string; file: string }> }

export async function GET(request: Request, { params }: Context): Promise<Response> {
  const { jobId, file } = await params
  return layoutFile(jobId, file, new URL(request.url).searchParams)
}
