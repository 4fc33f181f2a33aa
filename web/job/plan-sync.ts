import { createStore, type StoreApi } from 'zustand/vanilla'
import type { HeldBack } from '@/core/model/plan/hold-back'
import { mergePlans, type Clash } from '@/core/model/plan/merge'
import type { Plan } from '@/core/model/plan/schema'
import type { Fault } from '@/core/kit/result'
import { saveJob, takeBackChange, type Saved } from '@/web/actions/jobs'
import { call } from '@/web/kit/call'
import { deviceStore, draftBox } from './device-store'
import { lateChecks } from './late-parts'

export type SaveState =
  | { kind: 'saved' | 'typing' | 'saving' | 'merged' }
  | { kind: 'fault'; fault: Fault }
  | { kind: 'clash'; number: number; theirs: Plan; clashes: Clash[]; by: string; summary: string }

export interface PlanState {
  /** As it is typed. */
  plan: Plan
  /** As the server has it: the merge base of the next save. */
  savedPlan: Plan
  number: number
  save: SaveState
  /** Figures that were typed and are held back from saving, each with its place and what is wrong. */
  held: readonly HeldBack[]
  /** What the last undo or redo did, in words. */
  said: string | null
}

export interface PlanStart {
  jobId: string
  number: number
  plan: Plan
  member: { id: string }
}
interface Revision {
  number: number
  plan: Plan
}

const SAVE_PAUSE_MS = 700
const RETRY_MS = 4000
/** Faults that pass by themselves. */
const PASSING = new Set(['no_answer', 'busy', 'too_much_at_once', 'took_too_long'])
const sameText = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/**
 * The plan of an open job: what is typed is shown at once, kept on this device, and saved after a pause, one save at a
 * time; what the schema refuses is held back; what others save is merged in.
 */
export class PlanSync {
  readonly store: StoreApi<PlanState>
  private readonly jobId: string
  private readonly box: string
  private timer: ReturnType<typeof setTimeout> | null = null
  private draftTimer: ReturnType<typeof setTimeout> | null = null
  private busy: Promise<boolean> | null = null
  /** What somebody else saved while a save of ours was under way. */
  private theirsLater: Revision | null = null

  constructor({ jobId, number, plan, member }: PlanStart) {
    this.jobId = jobId
    this.box = draftBox(member.id, jobId)
    this.store = createStore<PlanState>(() => ({
      plan,
      savedPlan: plan,
      number,
      save: { kind: 'saved' },
      held: [],
      said: null,
    }))
  }

  isUnsaved(): boolean {
    const { plan, savedPlan } = this.now
    return plan !== savedPlan
  }

  readonly edit = (change: (plan: Plan) => Plan): void => {
    this.store.setState(({ plan, save }) => ({
      plan: change(plan),
      save: save.kind === 'clash' ? save : { kind: 'typing' },
      said: null,
    }))
    this.keepDraftSoon()
    this.saveIn(SAVE_PAUSE_MS)
  }

  /** Saves what is typed; false where it is not saved: a clash, a fault, a dead network. */
  readonly push = (): Promise<boolean> => {
    this.busy ??= this.pushOnce().finally(() => {
      this.busy = null
      if (this.theirsLater) this.receive(this.theirsLater)
    })
    return this.busy
  }

  /** A revision that somebody else saved meanwhile: merged into what is typed here, as a save would. */
  readonly receive = (theirs: Revision): void => {
    this.theirsLater = this.busy ? theirs : null
    const { plan, savedPlan, number } = this.now
    if (this.busy || theirs.number <= number) return
    const merged = mergePlans(savedPlan, plan, theirs.plan)
    // Where both changed one thing, the next save says so.
    if (merged.clean) this.adopt(theirs, savedPlan, plan)
  }

  /** What a save by other means answered. */
  readonly take = (saved: Saved): void => {
    if (saved.kind === 'clash') return this.setSave(saved)
    const { number } = saved
    const typed = this.now.plan
    if (saved.kind !== 'unchanged' && saved.plan) this.adopt({ number, plan: saved.plan }, typed, typed)
    this.setSave({ kind: 'saved' })
  }

  /** Takes this member's own last change back, or what was taken back. */
  readonly undo = (): Promise<void> => this.takeBack('undo')
  readonly redo = (): Promise<void> => this.takeBack('redo')

  /** Only the clashing parts are decided; what else either side changed stays. */
  readonly settle = (side: 'mine' | 'theirs'): void => {
    const { plan, savedPlan, save } = this.now
    if (save.kind !== 'clash') return
    const merged = mergePlans(savedPlan, plan, save.theirs, { prefer: side })
    this.store.setState({
      plan: merged.clean ? merged.plan : plan,
      savedPlan: save.theirs,
      number: save.number,
      save: { kind: 'typing' },
    })
    this.keepDraft()
    void this.push()
  }

  /** What this device still holds of this member's from before: typed again over what stands now. */
  async resumeDraft(standing: Revision, isOpen: () => boolean): Promise<void> {
    // No store: nothing was kept.
    const draft = await deviceStore()
      .then((store) => store.draft(this.box))
      .catch(() => undefined)
    if (!isOpen() || !draft || this.now.plan !== standing.plan) return
    const merged = mergePlans(draft.base, draft.plan, standing.plan)
    if (!merged.clean) {
      const theirs = { number: standing.number, theirs: standing.plan, clashes: merged.clashes }
      this.store.setState({
        plan: draft.plan,
        savedPlan: draft.base,
        number: draft.number,
        save: { kind: 'clash', ...theirs, by: '', summary: '' },
      })
      return
    }
    if (sameText(merged.plan, standing.plan)) return this.keepDraft()
    this.store.setState({ plan: merged.plan, save: { kind: 'typing' } })
    void this.push()
  }

  private get now(): PlanState {
    return this.store.getState()
  }
  private setSave(save: SaveState): void {
    this.store.setState({ save })
  }
  private saveIn(ms: number): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.push(), ms)
  }

  /** After what was typed is on the screen: copying a plan into the device's store takes its time. */
  private keepDraftSoon(): void {
    this.draftTimer ??= setTimeout(() => {
      this.draftTimer = null
      this.keepDraft()
    }, 0)
  }
  /** What is typed and not saved stays on this device, until it is. */
  private keepDraft(): void {
    const { plan, savedPlan, number } = this.now
    const { box } = this
    void deviceStore()
      .then((store) =>
        plan === savedPlan ? store.dropDraft(box) : store.keepDraft({ box, number, base: savedPlan, plan }),
      )
      .catch(() => {}) // a full device still has the page itself
  }

  /** The server has `saved`, made of `sent`, which was sent when `typedThen` stood here. */
  private adopt(saved: Revision, sent: Plan, typedThen: Plan): void {
    const typed = this.now.plan
    let plan = saved.plan
    if (typed !== typedThen || sent !== typedThen) {
      // What was typed meanwhile, and what was held back, stays as it was typed.
      const merged = mergePlans(sent, typed, saved.plan, { prefer: 'mine' })
      plan = merged.clean ? merged.plan : typed
      if (sameText(plan, saved.plan)) plan = saved.plan
    }
    this.store.setState({ plan, savedPlan: saved.plan, number: saved.number })
    this.keepDraft()
  }

  private async pushOnce(): Promise<boolean> {
    const checks = this.isUnsaved() ? await lateChecks.load().catch(() => null) : null
    const { plan: typed, savedPlan, number, held } = this.now
    if (!checks && typed !== savedPlan) {
      this.setSave({ kind: 'fault', fault: { code: 'offline' } })
      this.saveIn(RETRY_MS)
      return false
    }
    const { plan: sound, held: back } =
      checks && typed !== savedPlan ? checks.soundPlan(typed, savedPlan) : { plan: typed, held: [] }
    if (!sameText(held, back)) this.store.setState({ held: back })
    // The schema's own order and defaults make no change of it.
    if (back.length === 0 ? typed === savedPlan : sameText(sound, savedPlan)) {
      if (this.now.save.kind !== 'clash') this.setSave({ kind: 'saved' })
      return true
    }
    this.setSave({ kind: 'saving' })
    const sent = back.length === 0 ? typed : sound
    const out = await call(saveJob, { jobId: this.jobId, basedOn: number, plan: sent })
    if (!out.ok) {
      // What is typed stays on the page, and goes out by itself.
      this.setSave({ kind: 'fault', fault: out.error.code === 'no_answer' ? { code: 'offline' } : out.error })
      if (PASSING.has(out.error.code)) this.saveIn(RETRY_MS)
      return false
    }
    const { value } = out
    if (value.kind === 'clash') {
      this.setSave(value)
      return false
    }
    const kept = value.kind === 'unchanged' ? null : value.plan
    this.adopt({ number: value.number, plan: kept ?? sent }, sent, typed)
    if (this.now.plan !== typed && this.isUnsaved() && back.length === 0) {
      this.setSave({ kind: 'typing' })
      this.saveIn(SAVE_PAUSE_MS)
    } else this.setSave({ kind: value.kind === 'merged' ? 'merged' : 'saved' })
    return true
  }

  private async takeBack(which: 'undo' | 'redo'): Promise<void> {
    if (this.timer) clearTimeout(this.timer)
    // While something typed is not saved, the last saved change is not the last one made.
    if (!(await this.push())) return
    const before = this.now.savedPlan
    const out = await call(takeBackChange, { jobId: this.jobId, which })
    if (!out.ok) return this.setSave({ kind: 'fault', fault: out.error })
    const typed = this.now.plan
    this.adopt(out.value, before, typed === before ? before : typed)
    this.store.setState({ save: { kind: 'saved' }, said: out.value.said })
  }
}
