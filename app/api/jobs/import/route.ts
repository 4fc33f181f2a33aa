import { importJob } from '@/web/actions/job-files'

export const POST = importJob
