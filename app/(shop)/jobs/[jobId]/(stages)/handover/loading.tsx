import { Skeleton } from '@/web/kit/skeleton'

export default function Loading() {
  return <Skeleton shape="paper" />
}
