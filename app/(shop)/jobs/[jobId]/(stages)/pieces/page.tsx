import { Pieces } from '@/web/pieces/pieces'

export const metadata = { title: 'Pieces' }

export default function PiecesRoute() {
  return <Pieces />
}
