'use server'

import { ShopSettings } from '@/core/model/shop/shop'
import { openPlans } from '@/db/queries/jobs'
import { shopOf } from '@/db/queries/shop'
import type { JobMoves } from '@/web/threads/jobs'
import { answer, type Answer } from './answer'
import { threads } from './threads'

const Rules = ShopSettings.pick({ winter: true, edgeLeave: true, edgeCut: true })

/** Which edges of which open jobs other rules would move: nothing is saved. */
export async function previewRules(raw: unknown): Promise<Answer<JobMoves[]>> {
  return answer('shop', Rules, raw, async (who, after) => {
    const [jobs, { settings: before }] = await Promise.all([openPlans(who), shopOf(who)])
    return { ok: true, value: await threads().run('edgeMoves', { jobs, before, after }) }
  })
}
