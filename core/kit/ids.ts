export const slug = (text: string): string => {
  const s = text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 50)
  return s === '' ? 'panel' : s
}

/** `wanted`, or `wanted-2`, `wanted-3` …, whichever is free. */
export function freeId(wanted: string, taken: Iterable<string>): string {
  const set = new Set(taken)
  if (!set.has(wanted)) return wanted
  let n = 2
  while (set.has(`${wanted}-${n}`)) n++
  return `${wanted}-${n}`
}
