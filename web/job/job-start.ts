import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { LogRow } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import type { MemberUnits } from '@/web/words/format'

/** What a job's pages begin with, as the server sends it. */
export interface JobStart {
  jobId: string
  number: number
  /** The shop's change number up to which all of this tells. */
  shopHead: number
  plan: Plan
  handedOver?: Plan | null
  ledger: LogRow[]
  catalogue: Catalogue
  units: MemberUnits
  member: { id: string; name: string; role: string }
}
