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

/** The pieces that a typed code, a scanned link or an id may mean: none, one, or a few whose codes are alike. */
export function piecesByLabel<T extends { id: string }>(pieces: readonly T[], text: string): T[] {
  const linked = /[?&]piece=([^&#]+)/.exec(text)?.[1]
  const id = linked === undefined ? null : decoded(linked)
  if (id !== null) return pieces.filter((p) => p.id === id)
  const code = readCode(text)
  return code.length === LENGTH ? pieces.filter((p) => shortCode(p.id) === code) : []
}

/** Null where a link was cut off in the middle of a character. */
function decoded(text: string): string | null {
  try {
    return decodeURIComponent(text)
  } catch {
    return null
  }
}
