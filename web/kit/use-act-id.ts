'use client'

import { useCallback, useRef } from 'react'
import { newId } from './call'

interface ActId {
  /** The id of what is about to be sent. */
  idFor: (content: unknown) => string
  /** It was taken: the next act is another one, even where it says the same. */
  taken: () => void
}

/**
 * Ids for what is written down once: the same when it is sent again after an answer was lost, another as soon as what it
 * says was changed. (The server keeps the first of two with one id.)
 */
export function useActId(): ActId {
  const last = useRef<{ content: string; id: string } | null>(null)
  const idFor = useCallback((content: unknown): string => {
    const text = JSON.stringify(content)
    if (last.current?.content !== text) last.current = { content: text, id: newId() }
    return last.current.id
  }, [])
  const taken = useCallback(() => {
    last.current = null
  }, [])
  return { idFor, taken }
}
