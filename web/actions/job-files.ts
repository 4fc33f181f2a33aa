import { MAX_FILE_BYTES } from '@/core/kit/json-guard'
import { readPlan, writePlan } from '@/core/model/plan/parse'
import { writeCatalogue, writeLedger } from '@/core/model/catalogue/files'
import { createJob, jobWithSolutions, openJob } from '@/db/queries/jobs'
import { fileResponse, gives, isUuid, takes } from './routes'
import { yardFollows } from './yard'

/** A job file as a new job, or a clear error and nothing at all. */
export const importJob = (request: Request): Promise<Response> =>
  takes(
    request,
    { right: 'newJob', limit: MAX_FILE_BYTES },
    async ({ who }, body) => {
      const plan = readPlan(new TextDecoder().decode(body))
      if (!plan.ok) return plan
      const id = crypto.randomUUID()
      await createJob(who, id, plan.value, 'Imported from a job file', new Date())
      yardFollows(who, id)
      return { ok: true, value: { id } }
    },
    201,
  )

/** The job file: the plan's document, as it stands. */
export const exportJob = (jobId: string): Promise<Response> =>
  gives(async ({ who }) => {
    const file = isUuid(jobId) ? await openJob(who, jobId, new Date()) : null
    if (!file) return null
    return fileResponse(writePlan(file.plan), { type: 'application/json', name: `job-${jobId.slice(0, 8)}.json` })
  })

/** What the shop brings to a job as it stands, its solutions among it: the job's figures at a prompt hang on it. */
export const exportCatalogue = (jobId: string): Promise<Response> =>
  gives(async ({ who }) => {
    const file = isUuid(jobId) ? await jobWithSolutions(who, jobId, new Date()) : null
    if (!file) return null
    const { catalogue, solutions } = file
    return fileResponse(writeCatalogue(catalogue, solutions), {
      type: 'application/json',
      name: `catalogue-${jobId.slice(0, 8)}.json`,
    })
  })

/** What happened in the bay, entry by entry. */
export const exportLedger = (jobId: string): Promise<Response> =>
  gives(async ({ who }) => {
    const file = isUuid(jobId) ? await openJob(who, jobId, new Date()) : null
    if (!file) return null
    return fileResponse(writeLedger(file.ledger), {
      type: 'application/json',
      name: `ledger-${jobId.slice(0, 8)}.json`,
    })
  })
