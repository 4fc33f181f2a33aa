import sharp from 'sharp'
import { addPhoto, photoBytes } from '@/db/queries/photos'
import { bodyWithin } from './body'
import { broken, no, type Answer } from './answer'
import { fromOutside } from './origin'
import { currentMember } from './session'

/** What may be sent, and what is kept: the picture is made anew at this size, so nothing of the file itself stays. */
export const MAX_PHOTO_BYTES = 12_000_000
const LONGEST_SIDE_PX = 1600
const MAX_PIXELS = 60_000_000

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
const json = (body: Answer<unknown>, status: number): Response => Response.json(body, { status })

/** A photo as JPEG, turned upright, without metadata; null where it is none. */
export async function remade(bytes: Buffer): Promise<{ data: Buffer; width: number; height: number } | null> {
  try {
    const image = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
    const { format } = await image.metadata()
    if (!['jpeg', 'png', 'webp', 'heif'].includes(format ?? '')) return null
    const { data, info } = await image
      .rotate()
      .resize({ width: LONGEST_SIDE_PX, height: LONGEST_SIDE_PX, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer({ resolveWithObject: true })
    return { data, width: info.width, height: info.height }
  } catch {
    return null
  }
}

/** A photo sent as the request's body, kept with its job. */
export async function takePhoto(request: Request, jobId: string): Promise<Response> {
  if (fromOutside(request)) return json(no('not_allowed'), 403)
  const member = await currentMember()
  if (!member) return json(no('signed_out'), 401)
  if (!UUID.test(jobId)) return json(no('not_found'), 404)
  try {
    const bytes = await bodyWithin(request, MAX_PHOTO_BYTES)
    if (!bytes) return json(no('photo_too_large', { limit: MAX_PHOTO_BYTES }), 413)
    const photo = await remade(bytes)
    if (!photo) return json(no('not_a_photo'), 422)
    const id = crypto.randomUUID()
    const out = await addPhoto(member.who, { id, jobId, width: photo.width, height: photo.height, bytes: photo.data })
    return out === 'done' ? json({ ok: true, value: { id } }, 201) : json(no(out), out === 'not_found' ? 404 : 409)
  } catch (error) {
    const answer = broken(error)
    return json(answer, answer.error.code === 'not_allowed' ? 403 : 500)
  }
}

export async function showPhoto(id: string): Promise<Response> {
  const member = await currentMember()
  if (!member) return new Response('Sign in first', { status: 401 })
  const bytes = UUID.test(id) ? await photoBytes(member.who, id) : null
  if (!bytes) return new Response('Not found', { status: 404 })
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'image/jpeg',
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  })
}
