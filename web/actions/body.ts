/** The body of a request, never more than the limit whatever its header says; null where it is longer. */
export async function bodyWithin(request: Request, limit: number): Promise<Buffer | null> {
  if (Number(request.headers.get('content-length') ?? 0) > limit) return null
  const reader = request.body?.getReader()
  const chunks: Uint8Array[] = []
  let size = 0
  for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
    size += part.value.byteLength
    if (size > limit) {
      await reader?.cancel()
      return null
    }
    chunks.push(part.value)
  }
  return Buffer.concat(chunks)
}
