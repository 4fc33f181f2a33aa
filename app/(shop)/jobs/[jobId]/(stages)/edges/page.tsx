import { Edges } from '@/web/edges/edges'

export const metadata = { title: 'Edges' }

export default function EdgesRoute() {
  return <Edges />
}
