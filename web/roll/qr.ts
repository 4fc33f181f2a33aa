import QRCode from 'qrcode'

/** A QR code as runs of dark modules: column, row and length of each, in modules; the side without its quiet margin. */
export interface QrCode {
  side: number
  runs: readonly (readonly [number, number, number])[]
}

/** Light modules that must stay free around a code (ISO/IEC 18004 asks for four; labels are white beyond it). */
export const QUIET = 2

/** The code of a text, level M: up to 15 % of it may be hidden by dirt. */
export function qrCode(text: string): QrCode {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' })
  const runs: [number, number, number][] = []
  for (let y = 0; y < modules.size; y++)
    for (let x = 0; x < modules.size; x++) {
      if (!modules.get(y, x)) continue
      const from = x
      while (x < modules.size && modules.get(y, x)) x++
      runs.push([from, y, x - from])
    }
  return { side: modules.size, runs }
}
