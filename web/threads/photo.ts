import sharp from 'sharp'

/** A photo is kept at this size at most. */
const LONGEST_SIDE_PX = 1600
/** No phone's camera of today passes this; decoding more would hold memory for everybody. */
export const MAX_PIXELS = 60_000_000

// One picture at a time on one core: the library's own threads would take those that answer people.
sharp.concurrency(1)
sharp.cache(false)

/** A photo as JPEG, turned upright, made anew, so that nothing of the file itself stays. */
export async function remadePhoto(
  bytes: Uint8Array,
): Promise<{ data: Uint8Array; width: number; height: number } | { fault: 'not_a_photo' | 'too_many_pixels' }> {
  try {
    const image = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
    const { format, width, height } = await image.metadata()
    if (!['jpeg', 'png', 'webp', 'heif'].includes(format ?? '')) return { fault: 'not_a_photo' }
    if (width * height > MAX_PIXELS) return { fault: 'too_many_pixels' }
    const { data, info } = await image
      .rotate()
      .resize({ width: LONGEST_SIDE_PX, height: LONGEST_SIDE_PX, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer({ resolveWithObject: true })
    return { data: new Uint8Array(data), width: info.width, height: info.height }
  } catch (error) {
    return { fault: /pixel limit/i.test(String(error)) ? 'too_many_pixels' : 'not_a_photo' }
  }
}
