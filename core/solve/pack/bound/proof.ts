import type { Random } from '../../../kit/random'
import { bandsLength, type Band } from '../model/band'
import { completed } from './complete'
import type { Kind } from '../model/kinds'
import { Parts } from './parts'
import { PACK_TOLERANCE } from '../model/types'

/**
 * Proofs by parts beside a search: as much work as so many pairs for each of its rounds, or a share of the time where
 * there is a clock; less and less, down to `leastShare`, while nothing comes of it. A plan of a part is completed in
 * so many tries.
 */
const PROOF = { work: 100, share: 0.4, leastShare: 0.05, less: 0.6, more: 2, tries: 300 }
/** From so many rounds of the search on they are worth it. */
export const PROOF_ROUNDS = 20_000

interface ProofJob {
  kinds: readonly Kind[]
  width: number
  /** Any number of straight cuts: what is found meanwhile is a plan. */
  deep: boolean
  price: Float64Array
  bound: number
  random: Random
  spent: () => boolean
  gone?: (() => number) | undefined
}

export class BoundProof {
  private readonly parts: Parts
  /** Work and share of the time there was, and work there may still be. */
  private work = 0
  private gone = 0
  private credit = 0
  private share = PROOF.share

  constructor(private readonly job: ProofJob) {
    this.parts = new Parts(job.kinds, job.width, job)
  }
  get bound(): number {
    return this.parts.bound
  }
  /**
   * Raises the bound towards `length`, the best plan's, after so many rounds of the search more. Answers how many
   * rounds that was worth, and the shortest plan that came of it.
   */
  run(rounds: number, length: number): { rounds: number; bands: Band[] | null } {
    const { job, parts } = this
    const began = job.gone?.()
    this.credit =
      began === undefined || this.gone === 0
        ? this.credit + (rounds * PROOF.work * this.share) / PROOF.share
        : ((this.share * began - this.gone) * this.work) / this.gone
    const before = parts.bound
    let best: Band[] | null = null
    let least = length
    let done = 0
    while (least > parts.bound + PACK_TOLERANCE && done < this.credit) {
      const { work, plan } = parts.run(least, this.credit - done, job.spent)
      done += work
      if (!plan) break
      const bands = job.deep ? completed(job, plan, least, PROOF.tries) : null
      if (!bands) continue
      best = bands
      least = bandsLength(bands)
    }
    if (done > 0)
      this.share =
        best || parts.bound > before + PACK_TOLERANCE
          ? Math.min(PROOF.share, this.share * PROOF.more)
          : Math.max(PROOF.leastShare, this.share * PROOF.less)
    this.credit -= done
    this.work += done
    this.gone += (job.gone?.() ?? 0) - (began ?? 0)
    return { rounds: Math.ceil(done / PROOF.work), bands: best }
  }
}
