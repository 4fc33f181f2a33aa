import { writeFileSync } from 'node:fs'
import { z } from 'zod'
import { Plan } from '@/core/model/plan/schema'

/** The published JSON Schema of the job file, written from the one that parses it. */
export const jobSchema = (): string =>
  `${JSON.stringify({ $id: 'cuirass/job@1', title: 'Cuirass job file', ...z.toJSONSchema(Plan) }, null, 2)}\n`
if (process.argv[1]?.endsWith('write-schema.ts'))
  writeFileSync(new URL('../docs/job.schema.json', import.meta.url), jobSchema())
