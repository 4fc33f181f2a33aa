import Button from 'react-bootstrap/Button'
import { SEAL_TUCK } from '@/core/model/edge/cut-rules'
import type { TapeQuestion } from '@/core/stages/tape/tape-answer'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

type Words = NonNullable<TapeQuestion['words']>
type Tightness = Words['options'][number]

/** What a soft tool feels under a seal, a word a key, with the film that goes under it. */
export function SealAnswers({
  words,
  fmt,
  onAnswer,
}: {
  words: Words
  fmt: Formatter
  onAnswer: (answer: Tightness) => void
}) {
  const takes = (option: Tightness): string => {
    const rule = SEAL_TUCK.find((s) => s.fits === option)
    return rule ? `takes ${fmt.text(fmt.length(rule.tuckMm))}` : 'tears: cut at it'
  }
  return (
    <div className="d-grid gap-2" role="group" aria-label="How the seal sits">
      {words.options.map((option) => (
        <Button key={option} variant="plain" aria-pressed={words.chosen === option} onClick={() => onAnswer(option)}>
          {word('tightness', option)} <small>{takes(option)}</small>
        </Button>
      ))}
    </div>
  )
}
