import { notFound } from 'next/navigation'
import { type Stage, STAGES } from '@/core/model/finding/stage'
import { Bay } from '@/web/bay/bay'
import { FilmChoice } from '@/web/film/film-choice'
import { Handover } from '@/web/handover/handover'
import { Pieces } from '@/web/pieces/pieces'
import { Roll } from '@/web/roll/roll'
import { RunSheet } from '@/web/run-sheet/run-sheet'
import { Tape } from '@/web/tape/tape'
import { WalkaroundView } from '@/web/walkaround/walkaround'
import { word } from '@/web/words/names'

const VIEWS: Record<Stage, () => React.ReactNode> = {
  walkaround: WalkaroundView,
  film: FilmChoice,
  tape: Tape,
  pieces: Pieces,
  roll: Roll,
  'run-sheet': RunSheet,
  bay: Bay,
  handover: Handover,
}

type Props = { params: Promise<{ stage: string }> }

export async function generateMetadata({ params }: Props) {
  return { title: word('stage', (await params).stage) }
}

export default async function StagePage({ params }: Props) {
  const { stage } = await params
  if (!(STAGES as readonly string[]).includes(stage)) notFound()
  const View = VIEWS[stage as Stage]
  return <View />
}
