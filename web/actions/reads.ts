import { fleetFile, fleetHead, fleets } from '@/db/queries/fleet'
import { comparedSolutions, jobIsThere } from '@/db/queries/jobs'
import { cuttingTable } from '@/outside/cutting-table'
export type { FleetFile, FleetHead } from '@/db/queries/fleet'
export type { TableReport } from '@/outside/cutting-table'
import { broken, refuse, type Answer } from './answer'
import { answerJson, isUuid, type Member } from './routes'
import { currentMember } from './session'

/** The frame of a route handler that only reads, for whoever is signed in. */
async function reads(work: (member: Member) => Promise<Answer<unknown>>): Promise<Response> {
  try {
    const member = await currentMember()
    return answerJson(member ? await work(member) : refuse('signed_out'))
  } catch (error) {
    return answerJson(broken(error))
  }
}

/** How the layouts of this shop stand. */
export const readFleets = (): Promise<Response> => reads(async ({ who }) => ({ ok: true, value: await fleets(who) }))

/** How one layout stands: what is asked again and again while it runs. */
export const readFleetHead = (id: string): Promise<Response> =>
  reads(async ({ who }) => {
    const head = isUuid(id) ? await fleetHead(who, id) : null
    return head ? { ok: true, value: head } : refuse('not_found')
  })

/** One layout whole, once it has ended. */
export const readFleetFile = (id: string): Promise<Response> =>
  reads(async ({ who }) => {
    const file = isUuid(id) ? await fleetFile(who, id) : null
    return file ? { ok: true, value: file } : refuse('not_found')
  })

/** What the table says of this job's drawings; null where no table is set up. */
export const readTableReports = (jobId: string): Promise<Response> =>
  reads(async ({ who }) => {
    const table = cuttingTable(who.shopId)
    if (!table) return { ok: true, value: null }
    if (!isUuid(jobId) || !(await jobIsThere(who, jobId))) return refuse('not_found')
    return { ok: true, value: await table.reports(`${jobId}_`) }
  })

/** Solutions that a job's plan is only compared by: a page asks for them once it stands. */
export const readCompared = (jobId: string): Promise<Response> =>
  reads(async ({ who }) => {
    const list = isUuid(jobId) ? await comparedSolutions(who, jobId) : null
    return list ? { ok: true, value: list } : refuse('not_found')
  })
