import Button from 'react-bootstrap/Button'
import type { TapeQuestion } from '@/core/stages/tape/tape-answer'
import { word } from '@/web/words/names'

type Words = NonNullable<TapeQuestion['words']>

/** What a soft tool feels under a seal, a word a key. */
export function SealAnswers({
  words,
  onAnswer,
}: {
  words: Words
  onAnswer: (answer: Words['options'][number]) => void
}) {
  return (
    <div className="d-grid gap-2" role="group" aria-label="How the seal sits">
      {words.options.map((option) => (
        <Button key={option} variant="plain" aria-pressed={words.chosen === option} onClick={() => onAnswer(option)}>
          {word('tightness', option)}
        </Button>
      ))}
    </div>
  )
}
