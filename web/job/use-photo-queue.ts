import { useCallback, useEffect, useState } from 'react'
import type { Fault } from '@/core/kit/result'
import { newId } from '@/web/kit/call'
import { deviceStore, type KeptPhoto } from './device-store'
import type { JobStart } from './job-start'
import { standIn } from './at-this-tablet'

const LONGEST_PX = 2000
const QUALITY = 0.85
const RETRY_MS = 15_000
/** A camera's file past this is not taken into the page at all. */
const MAX_FILE_BYTES = 80_000_000

/** Refusals of the photo itself: sending it again would not help. After any other it stays on the device. */
const FINAL: readonly string[] = ['not_a_photo', 'photo_too_large', 'not_found', 'bad_input']

/** A photo made smaller on the device, so that many can wait on it. Errors: photo_too_large, not_a_photo. */
async function smaller(file: File): Promise<Blob | Fault> {
  if (file.size > MAX_FILE_BYTES) return { code: 'photo_too_large', facts: { limit: MAX_FILE_BYTES } }
  try {
    const image = await createImageBitmap(file)
    const scale = Math.min(1, LONGEST_PX / Math.max(image.width, image.height))
    const canvas = new OffscreenCanvas(Math.round(image.width * scale), Math.round(image.height * scale))
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
    image.close()
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY })
  } catch (error) {
    console.info('no image in this file', error)
    return { code: 'not_a_photo' }
  }
}

/** Photos of the bay: kept on this device under an id of its own until the server has them. */
export interface PhotoQueue {
  /** Keeps a photo and sends it as soon as that goes; its id, or null where it is no photo. */
  take: (file: File) => Promise<string | null>
  fault: Fault | null
  waiting: number
}

/** Sends what is kept for this job, whichever of its pages is open. */
export function usePhotoQueue({ jobId, member }: Pick<JobStart, 'jobId' | 'member'>): PhotoQueue {
  const [fault, setFault] = useState<Fault | null>(null)
  const [waiting, setWaiting] = useState(0)
  const flush = useCallback(async () => {
    const store = await deviceStore()
    const own = async () => (await store.photos(jobId)).filter((p) => p.memberId === member.id)
    // Under another's session they would be another's.
    for (const photo of standIn() ? [] : await own()) {
      const out = await send(jobId, photo)
      if (out === 'offline') break
      setFault(out === 'done' ? null : out)
      if (out !== 'done' && !FINAL.includes(out.code)) break
      await store.dropPhoto(photo.id)
    }
    setWaiting((await own()).length)
  }, [jobId, member.id])
  useEffect(() => {
    const first = setTimeout(() => void flush(), 0)
    const again = setInterval(() => void flush(), RETRY_MS)
    return () => {
      clearTimeout(first)
      clearInterval(again)
    }
  }, [flush])
  const take = async (file: File): Promise<string | null> => {
    const made = await smaller(file)
    if ('code' in made) {
      setFault(made)
      return null
    }
    setFault(null)
    const id = newId()
    const store = await deviceStore()
    await store.keepPhoto({ id, jobId, memberId: member.id, bytes: made })
    void flush()
    return id
  }
  return { take, fault, waiting }
}

async function send(jobId: string, { id, memberId, bytes }: KeptPhoto): Promise<'done' | 'offline' | Fault> {
  try {
    const response = await fetch(`/api/jobs/${jobId}/photos?id=${id}&member=${memberId}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: bytes,
    })
    const out = (await response.json()) as { ok: true } | { ok: false; error: Fault }
    return out.ok ? 'done' : out.error
  } catch {
    return 'offline' // sent again when the network is back
  }
}
