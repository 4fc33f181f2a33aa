import { seeded } from '@/core/kit/random'
import { timeBudget } from '@/core/kit/budget'
import { pack } from '@/core/solve/pack'
import { alike, fleet, van } from './instances'

/** Run by itself, so that nothing else counts: the most memory that layouts of two fleets and of a van take, MB. */
for (const { items, width, bins } of [fleet(60, 900, true), alike(60, 900), van(0)])
  pack(items, bins ?? [{ id: 'roll', width, length: 2_000_000, lot: 'A' }], {
    gap: 0,
    random: seeded(1),
    budget: timeBudget(() => performance.now(), 20),
  })
console.log(Math.round(process.resourceUsage().maxRSS / 1024))
