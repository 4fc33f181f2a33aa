'use client'

import { useEffect, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import type { Plan } from '@/core/model/plan/schema'
import { lateChecks } from './late-parts'
import { PlanSync, type PlanStart, type PlanState } from './plan-sync'

export interface PlanStore
  extends Omit<PlanState, 'savedPlan'>, Pick<PlanSync, 'edit' | 'undo' | 'redo' | 'settle' | 'take' | 'receive'> {
  /** What is reckoned: the plan as typed, less the figures that are held back. */
  reckoned: Plan
}

/** The plan of an open job, with what may be done to it. */
export function usePlan(start: PlanStart): PlanStore {
  const [sync] = useState(() => new PlanSync(start))
  const { savedPlan, ...state } = useStore(sync.store)
  const { plan, held } = state
  const reckoned = useMemo(
    // Nothing is held back before the checks are there.
    () => (held.length === 0 ? plan : (lateChecks.now()?.soundPlan(plan, savedPlan).plan ?? savedPlan)),
    [held.length, plan, savedPlan],
  )
  useEffect(() => {
    let isOpen = true
    void sync.resumeDraft({ number: start.number, plan: start.plan }, () => isOpen)
    return () => {
      isOpen = false
    }
  }, [sync, start.number, start.plan])
  useEffect(() => followKeys(sync), [sync])
  const { edit, undo, redo, settle, take, receive } = sync
  return { ...state, reckoned, edit, undo, redo, settle, take, receive }
}

/** Ctrl Z and Ctrl Y, a page left with something unsaved, and the network that comes back. */
function followKeys(sync: PlanSync): () => void {
  const leave = (event: BeforeUnloadEvent) => {
    if (sync.isUnsaved()) event.preventDefault()
  }
  const key = (event: KeyboardEvent) => {
    const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
    if (!(event.ctrlKey || event.metaKey) || typing) return
    const letter = event.key.toLowerCase()
    if (letter !== 'z' && letter !== 'y') return
    event.preventDefault()
    void (letter === 'y' || event.shiftKey ? sync.redo() : sync.undo())
  }
  const online = () => void sync.push()
  window.addEventListener('beforeunload', leave)
  window.addEventListener('keydown', key)
  window.addEventListener('online', online)
  return () => {
    window.removeEventListener('beforeunload', leave)
    window.removeEventListener('keydown', key)
    window.removeEventListener('online', online)
  }
}
