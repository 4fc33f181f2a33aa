import { batches } from './batches'
import { Search } from './search'
import { LARGE, type StripPlan, type StripJob } from '../model/strip-job'

/**
 * Bands of least total length that hold all items, by straight cuts. Repeats for a seed where `rounds` ends the
 * search.
 */
export function guillotine(job: StripJob): StripPlan {
  const n = job.kinds.reduce((sum, k) => sum + k.items.length, 0)
  if (n === 0) return { bands: [], length: 0, proven: true }
  return n > LARGE ? batches({ ...job, prove: false }) : new Search(job).run()
}
