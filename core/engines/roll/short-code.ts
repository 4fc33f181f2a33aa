import { textHash } from '../../kit/random'

/** Letters and digits that cannot be taken for one another by hand or eye (no I, L, O, U). */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
const LENGTH = 4

/** A few characters that stand on a piece's label for its id: the same for as long as the piece is called so. */
export function shortCode(pieceId: string): string {
  // The last of the hash are as mixed as the first.
  let rest = parseInt(textHash(pieceId).slice(-6), 16)
  let out = ''
  for (let i = 0; i < LENGTH; i++) {
    out += LETTERS[rest % LETTERS.length]
    rest = Math.floor(rest / LETTERS.length)
  }
  return out
}

/** As it was meant: what looks alike is the same, small letters are large ones, blanks are nothing. */
export const readCode = (typed: string): string =>
  typed.toUpperCase().replace(/[\s-]/g, '').replace(/[IL]/g, '1').replace(/O/g, '0').replace(/U/g, 'V')

/**
 * The pieces of a job that a typed code or a scanned link may mean: none, one, or a few whose codes are alike. A link
 * to another job means none of these: panels are called alike on every car.
 */
export function piecesByLabel<T extends { id: string }>(pieces: readonly T[], jobId: string, text: string): T[] {
  const link = /\/jobs\/([^/?#]+)\/bay\?(?:.*&)?piece=([^&#]+)/.exec(text)
  if (link) return link[1] === jobId ? pieces.filter((p) => p.id === decoded(link[2])) : []
  const code = readCode(text)
  return code.length === LENGTH ? pieces.filter((p) => shortCode(p.id) === code) : []
}

/** Null where a link was cut off in the middle of a character. */
function decoded(text: string | undefined): string | null {
  try {
    return text === undefined ? null : decodeURIComponent(text)
  } catch {
    return null
  }
}
