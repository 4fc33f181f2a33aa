'use client'

import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { soundPlan, type HeldBack } from '@/core/model/plan/hold-back'
import { mergePlans, type Clash } from '@/core/model/plan/merge'
import type { Plan } from '@/core/model/plan/schema'
import type { Fault } from '@/core/kit/result'
import { saveJob, takeBackChange, type Saved } from '@/web/actions/jobs'
import { call } from '@/web/kit/call'
import { deviceStore, draftBox } from './device-store'

export type SaveState =
  | { kind: 'saved' | 'typing' | 'saving' | 'merged' }
  | { kind: 'fault'; fault: Fault }
  | { kind: 'clash'; number: number; theirs: Plan; clashes: Clash[]; by: string; summary: string }

export interface PlanStore {
  plan: Plan
  /** What is reckoned: the plan as typed, less the figures that are held back. */
  reckoned: Plan
  number: number
  save: SaveState
  /** Figures that were typed and are held back from saving, each with its place and what is wrong. */
  held: readonly HeldBack[]
  /** What the last undo or redo did, in words. */
  said: string | null
  edit: (change: (plan: Plan) => Plan) => void
  /** Takes this member's own last change back. */
  undo: () => Promise<void>
  redo: () => Promise<void>
  settle: (keep: 'mine' | 'theirs') => void
  take: (saved: Saved) => void
  /** A revision that somebody else saved meanwhile: merged into what is typed here, as a save would. */
  receive: (theirs: { number: number; plan: Plan }) => void
}
interface PlanStart {
  jobId: string
  number: number
  plan: Plan
  member: { id: string }
}

const SAVE_PAUSE_MS = 700
const RETRY_MS = 4000
/** Faults that pass by themselves. */
const PASSING = new Set(['no_answer', 'busy', 'too_much_at_once', 'took_too_long'])

/**
 * The plan as it is typed: shown at once, kept on this device, saved after a pause; what the schema refuses is held
 * back.
 */
export function usePlan(start: PlanStart): PlanStore {
  const { jobId } = start
  const box = draftBox(start.member.id, jobId)
  const [plan, setPlan] = useState(start.plan)
  const [save, setSave] = useState<SaveState>({ kind: 'saved' })
  const [number, setNumber] = useState(start.number)
  const [held, setHeld] = useState<readonly HeldBack[]>([])
  const [said, setSaid] = useState<string | null>(null)
  const [savedPlan, setSavedPlan] = useState(start.plan)
  const reckoned = useMemo(
    () => (held.length === 0 ? plan : soundPlan(plan, savedPlan).plan),
    [held.length, plan, savedPlan],
  )
  // What the server has: the merge base of the next save. Refs, since a save in flight must see the newest of each.
  const base = useRef({ number: start.number, plan: start.plan })
  const latest = useRef(start.plan)
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  const busy = useRef<Promise<boolean> | null>(null)
  // A save calls for the next one itself, so it is reached through a ref.
  const pushRef = useRef<() => Promise<boolean>>(async () => true)
  const later = (ms: number) => {
    if (timer.current) clearTimeout(timer.current)
    timer.current = setTimeout(() => void pushRef.current(), ms)
  }

  /** What is typed and not saved stays on this device, until it is. */
  const keep = useCallback(() => {
    const unsaved = latest.current !== base.current.plan
    const draft = { box, ...base.current, base: base.current.plan, plan: latest.current }
    void deviceStore()
      .then((store) => (unsaved ? store.keepDraft(draft) : store.dropDraft(box)))
      .catch(() => {}) // a full device still has the page itself
  }, [box])

  const adopt = useCallback(
    (saved: { number: number; plan: Plan }, sent: Plan, typedThen: Plan) => {
      const typed = latest.current
      base.current = { number: saved.number, plan: saved.plan }
      setSavedPlan(saved.plan)
      setNumber(saved.number)
      if (typed === typedThen && sent === typedThen) latest.current = saved.plan
      else {
        // What was typed meanwhile, and what was held back, stays as it was typed.
        const merged = mergePlans(sent, typed, saved.plan, { prefer: 'mine' })
        latest.current = merged.clean ? merged.plan : typed
        if (JSON.stringify(latest.current) === JSON.stringify(saved.plan)) latest.current = saved.plan
      }
      setPlan(latest.current)
      keep()
    },
    [keep],
  )

  /** Saves what is typed; false where it is not saved: a clash, a fault, a dead network. */
  const pushOnce = useCallback(async (): Promise<boolean> => {
    const typed = latest.current
    const { plan: sound, held: back } =
      typed === base.current.plan ? { plan: typed, held: [] } : soundPlan(typed, base.current.plan)
    setHeld((was) => (JSON.stringify(was) === JSON.stringify(back) ? was : back))
    // The schema's own order and defaults make no change of it.
    const same =
      back.length === 0 ? typed === base.current.plan : JSON.stringify(sound) === JSON.stringify(base.current.plan)
    if (same) {
      setSave((was) => (was.kind === 'clash' ? was : { kind: 'saved' }))
      return true
    }
    setSave({ kind: 'saving' })
    const sent = back.length === 0 ? typed : sound
    const out = await call(saveJob, { jobId, basedOn: base.current.number, plan: sent })
    if (!out.ok) {
      // What is typed stays on the page, and goes out by itself.
      const fault = out.error.code === 'no_answer' ? { code: 'offline' } : out.error
      setSave({ kind: 'fault', fault })
      if (PASSING.has(out.error.code)) later(RETRY_MS)
      return false
    }
    if (out.value.kind === 'clash') {
      setSave(out.value)
      return false
    }
    const kept = out.value.kind === 'unchanged' ? null : out.value.plan
    adopt({ number: out.value.number, plan: kept ?? sent }, sent, typed)
    const more = latest.current !== typed && latest.current !== base.current.plan
    if (more && back.length === 0) {
      setSave({ kind: 'typing' })
      later(SAVE_PAUSE_MS)
    } else setSave({ kind: out.value.kind === 'merged' ? 'merged' : 'saved' })
    return true
  }, [adopt, jobId])
  /** What somebody else saved while a save of ours was under way. */
  const theirsLater = useRef<{ number: number; plan: Plan } | null>(null)
  const receive = useCallback<PlanStore['receive']>(
    (theirs) => {
      theirsLater.current = busy.current ? theirs : null
      if (busy.current || theirs.number <= base.current.number) return
      const merged = mergePlans(base.current.plan, latest.current, theirs.plan)
      // Where both changed one thing, the next save says so.
      if (merged.clean) adopt(theirs, base.current.plan, latest.current)
    },
    [adopt],
  )
  const push = useCallback(async () => {
    if (busy.current) return busy.current
    busy.current = pushOnce().finally(() => {
      busy.current = null
      if (theirsLater.current) receive(theirsLater.current)
    })
    return busy.current
  }, [pushOnce, receive])
  useEffect(() => {
    pushRef.current = push
  }, [push])

  const edit = useCallback(
    (change: (plan: Plan) => Plan) => {
      latest.current = change(latest.current)
      setPlan(latest.current)
      setSave((was) => (was.kind === 'clash' ? was : { kind: 'typing' }))
      setSaid(null)
      keep()
      later(SAVE_PAUSE_MS)
    },
    [keep],
  )

  const take = useCallback(
    (saved: Saved) => {
      if (saved.kind === 'clash') return setSave(saved)
      const { number } = saved
      if (saved.kind !== 'unchanged' && saved.plan) adopt({ number, plan: saved.plan }, latest.current, latest.current)
      setSave({ kind: 'saved' })
    },
    [adopt],
  )
  const takeBack = useCallback(
    async (way: 'undo' | 'redo') => {
      if (timer.current) clearTimeout(timer.current)
      // While something typed is not saved, the last saved change is not the last one made.
      if (!(await pushRef.current())) return
      const before = base.current.plan
      const out = await call(takeBackChange, { jobId, way })
      if (!out.ok) return setSave({ kind: 'fault', fault: out.error })
      adopt(out.value, before, latest.current === before ? before : latest.current)
      setSave({ kind: 'saved' })
      setSaid(out.value.said)
    },
    [adopt, jobId],
  )
  const undo = useCallback(() => takeBack('undo'), [takeBack])
  const redo = useCallback(() => takeBack('redo'), [takeBack])

  const settle = useCallback(
    (side: 'mine' | 'theirs') => {
      if (save.kind !== 'clash') return
      // Only the clashing parts are decided; what else either side changed stays.
      const merged = mergePlans(base.current.plan, latest.current, save.theirs, { prefer: side })
      base.current = { number: save.number, plan: save.theirs }
      setNumber(save.number)
      if (merged.clean) latest.current = merged.plan
      setPlan(latest.current)
      setSave({ kind: 'typing' })
      keep()
      void pushRef.current()
    },
    [keep, save],
  )

  // What this device still holds of this member's from before: typed again over what stands now.
  useEffect(() => {
    let alive = true
    void deviceStore()
      .then((store) => store.draft(box))
      .then((draft) => {
        if (!alive || !draft || latest.current !== start.plan) return
        const merged = mergePlans(draft.base, draft.plan, start.plan)
        if (!merged.clean) {
          base.current = { number: draft.number, plan: draft.base }
          latest.current = draft.plan
          setPlan(draft.plan)
          setSave({
            kind: 'clash',
            number: start.number,
            theirs: start.plan,
            clashes: merged.clashes,
            by: '',
            summary: '',
          })
          return
        }
        if (JSON.stringify(merged.plan) === JSON.stringify(start.plan)) return keep()
        latest.current = merged.plan
        setPlan(merged.plan)
        setSave({ kind: 'typing' })
        void pushRef.current()
      })
      .catch(() => {}) // no store: nothing was kept
    return () => {
      alive = false
    }
  }, [box, keep, start.number, start.plan])

  usePlanKeys({ unsaved: () => latest.current !== base.current.plan, takeBack, save: () => void pushRef.current() })
  return { plan, reckoned, number, save, held, said, edit, undo, redo, settle, take, receive }
}

/** Ctrl Z and Ctrl Y, a page left with something unsaved, and the network that comes back. */
function usePlanKeys(acts: {
  unsaved: () => boolean
  takeBack: (way: 'undo' | 'redo') => Promise<void>
  save: () => void
}): void {
  const latest = useRef(acts)
  useEffect(() => {
    latest.current = acts
  })
  useEffect(() => {
    const leave = (event: BeforeUnloadEvent) => {
      if (latest.current.unsaved()) event.preventDefault()
    }
    const key = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
      if (!(event.ctrlKey || event.metaKey) || typing) return
      const letter = event.key.toLowerCase()
      if (letter !== 'z' && letter !== 'y') return
      event.preventDefault()
      void latest.current.takeBack(letter === 'y' || event.shiftKey ? 'redo' : 'undo')
    }
    const online = () => latest.current.save()
    window.addEventListener('beforeunload', leave)
    window.addEventListener('keydown', key)
    window.addEventListener('online', online)
    return () => {
      window.removeEventListener('beforeunload', leave)
      window.removeEventListener('keydown', key)
      window.removeEventListener('online', online)
    }
  }, [])
}
