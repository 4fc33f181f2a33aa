import { writeFileSync } from 'node:fs'
import { reckon } from '@/core/reckon/reckon'
import { settle, withSolutions } from '@/core/reckon/solve-lack'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { DEMO_MORE_JOBS } from '@/db/demo/more-jobs'
import { DEMO_SHOP } from '@/db/demo/people'
import { demoSolutions } from '@/db/demo/solutions'
import { testDatabase } from './test-db.mjs'

/**
 * Solves anew what the demo shop's jobs hang on and writes it beside them; what is known already is taken over. Run it
 * whenever a key changes: a test fails until it was run.
 */
Object.assign(process.env, await testDatabase('cuirass_demo_solutions'), { APP_URL: 'http://127.0.0.1:3999' })
const { loadDemo } = await import('@/db/demo/load')
const { jobToSettle } = await import('@/db/queries/jobs')
const { closeDatabase } = await import('@/db/client')
const { closeWorkQueue } = await import('@/db/queue')

await loadDemo(new Date())
const jobs: string[] = []
for (const { id } of [...DEMO_JOBS, ...DEMO_MORE_JOBS]) {
  const file = await jobToSettle({ shopId: DEMO_SHOP.id, jobId: id }, null)
  if (!file) throw new Error(`no demo job ${id}`)
  const { plan, catalogue, ledger } = file
  const began = performance.now()
  const fresh = settle({ plan, catalogue, ledger, scanOf: () => null })
  const { solutions } = withSolutions(catalogue, fresh)
  const layouts = new Set(reckon(plan, { ...catalogue, solutions }, ledger).layouts.map((l) => l.key))
  const known = { ...solutions?.stretch, ...solutions?.ways, ...solutions?.heat, ...solutions?.fault }
  const once = new Map([...demoSolutions(id), ...fresh].map((s) => [`${s.kind}/${s.key}`, s]))
  const used = [...once.values()].filter((s) => (s.kind === 'layout' ? layouts.has(s.key) : s.key in known))
  jobs.push(`${JSON.stringify(id)}: [\n${used.map((s) => JSON.stringify(s)).join(',\n')}\n]`)
  const seconds = ((performance.now() - began) / 1000).toFixed(0)
  console.log(`${plan.vehicle.name}: ${used.length} solutions, ${fresh.length} new, ${seconds} s`)
}
writeFileSync(new URL('../db/demo/solutions.json', import.meta.url), `{${jobs.join(',\n')}}\n`)
await closeWorkQueue()
await closeDatabase()
