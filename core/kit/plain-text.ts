import { pathText } from './json-guard'

/**
 * Control characters other than tab and line breaks; half of a surrogate pair. Neither is text, and a database
 * refuses some.
 */
const NOT_TEXT =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/

export const isPlainText = (text: string): boolean => !NOT_TEXT.test(text)

/**
 * Where a value from outside holds a character that is no text, as a path; null where it holds none. Keys count too.
 */
export function controlCharacterIn(value: unknown, path: (string | number)[] = []): string | null {
  if (typeof value === 'string') return isPlainText(value) ? null : pathText(path) || 'text'
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return null
  for (const [key, item] of Object.entries(value)) {
    if (!isPlainText(key)) return pathText(path) || 'text'
    const at = controlCharacterIn(item, [...path, Array.isArray(value) ? Number(key) : key])
    if (at !== null) return at
  }
  return null
}
