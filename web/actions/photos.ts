import { addPhoto, photoBytes } from '@/db/queries/photos'
import { refuse } from './answer'
import { gives, isUuid, takes } from './routes'
import { threads } from './threads'

/** What may be sent; what is kept is made anew, much smaller. */
export const MAX_PHOTO_BYTES = 12_000_000

/** A photo sent as the request's body, kept with its job. */
export const takePhoto = (request: Request, jobId: string): Promise<Response> =>
  takes(
    request,
    { right: 'photo', limit: MAX_PHOTO_BYTES, tooLarge: 'photo_too_large' },
    async ({ who }, bytes) => {
      if (!isUuid(jobId)) return refuse('not_found')
      const { searchParams } = new URL(request.url)
      // Whose photo it is, where the device says: under another's session it would be another's.
      const member = searchParams.get('member')
      if (member !== null && member !== who.memberId) return refuse('another_member')
      const photo = await threads().run('photo', { bytes: new Uint8Array(bytes) })
      if ('fault' in photo) return refuse(photo.fault)
      // The bay's photos come with an id of their device, so that a second arrival changes nothing.
      const asked = searchParams.get('id')
      if (asked !== null && !isUuid(asked)) return refuse('bad_input', { at: 'id' })
      const id = asked ?? crypto.randomUUID()
      const { width, height, data } = photo
      const out = await addPhoto(who, { id, jobId, width, height, bytes: Buffer.from(data) })
      return out === 'done' ? { ok: true, value: { id } } : refuse(out)
    },
    201,
  )

/** A kept photo never changes, so a browser may keep it. */
export const showPhoto = (id: string): Promise<Response> =>
  gives(async ({ who }) => {
    const bytes = isUuid(id) ? await photoBytes(who, id) : null
    if (!bytes) return null
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'private, max-age=31536000, immutable',
        'x-content-type-options': 'nosniff',
      },
    })
  })
