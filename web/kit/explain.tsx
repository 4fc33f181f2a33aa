'use client'

import { memo } from 'react'
import { QuestionCircle } from 'react-bootstrap-icons'
import OverlayTrigger from 'react-bootstrap/OverlayTrigger'
import Tooltip from 'react-bootstrap/Tooltip'
import { TERMS, type Term } from '@/web/words/terms'
import { PlainButton } from './plain-button'
import './explain.scss'

/** A small question mark beside a term of the field: a line that explains it, by pointer, touch or keyboard. */
export const Explain = memo(function Explain({ term }: { term: Term }) {
  return (
    <OverlayTrigger
      placement="auto"
      trigger={['hover', 'focus', 'click']}
      overlay={<Tooltip>{TERMS[term].line}</Tooltip>}
    >
      <PlainButton className="explain d-print-none" aria-label={`What is ${TERMS[term].name}?`}>
        <QuestionCircle aria-hidden size={12} />
      </PlainButton>
    </OverlayTrigger>
  )
})
