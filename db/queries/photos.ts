import { and, count, eq, sql } from 'drizzle-orm'
import { guarded, type Who } from '../client'
import { QUOTAS } from '../quotas'
import { job, photo } from '../schema'

export const addPhoto = (
  who: Who,
  p: { id: string; jobId: string; width: number; height: number; bytes: Buffer },
): Promise<'done' | 'not_found' | 'too_many_photos' | 'photo_quota'> =>
  guarded(who, 'photo', async (tx) => {
    const [row] = await tx
      .select({ id: job.id })
      .from(job)
      .where(and(eq(job.shopId, who.shopId), eq(job.id, p.jobId)))
    if (!row) return 'not_found'
    const [n] = await tx
      .select({ n: count() })
      .from(photo)
      .where(and(eq(photo.shopId, who.shopId), eq(photo.jobId, p.jobId)))
    if ((n?.n ?? 0) >= QUOTAS.photosPerJob) return 'too_many_photos'
    const [kept] = await tx
      .select({ bytes: sql<string>`coalesce(sum(octet_length(${photo.bytes})), 0)` })
      .from(photo)
      .where(eq(photo.shopId, who.shopId))
    if (Number(kept?.bytes ?? 0) + p.bytes.byteLength > QUOTAS.photoBytes) return 'photo_quota'
    await tx
      .insert(photo)
      .values({ ...p, shopId: who.shopId, by: who.name })
      .onConflictDoNothing()
    return 'done'
  })

export const photoBytes = (who: Who, id: string): Promise<Buffer | null> =>
  guarded(who, 'read', async (tx) => {
    const [row] = await tx
      .select({ bytes: photo.bytes })
      .from(photo)
      .where(and(eq(photo.shopId, who.shopId), eq(photo.id, id)))
    return row?.bytes ?? null
  })
