import { Solution } from '@/core/model/catalogue/solutions'
import shipped from './solutions.json'

/** What a demo job hangs on, solved beforehand: the demo loads settled. Made by `npm run demo:solve`. */
export const demoSolutions = (jobId: string): Solution[] =>
  ((shipped as Record<string, unknown[] | undefined>)[jobId] ?? []).map((s) => Solution.parse(s))
