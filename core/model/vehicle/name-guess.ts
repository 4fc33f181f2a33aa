import type { Panel } from './schema'

/** Longest words first, so that "rear bumper" is not taken for anything rear. */
const KIND_WORDS: [RegExp, Panel['kind']][] = [
  [/\bfront bumper\b/, 'front_bumper'],
  [/\b(rear )?bumper\b/, 'rear_bumper'],
  [/\b(bonnet|hood)\b/, 'bonnet'],
  [/\b(boot|trunk)\b/, 'boot_lid'],
  [/\bhandle\b/, 'handle'],
  [/\b(aerial|antenna)\b/, 'aerial'],
  [/\bmirror\b/, 'mirror'],
  [/\bfuel\b/, 'fuel_flap'],
  [/\b(wing|fender)\b/, 'wing'],
  [/\bquarter\b/, 'quarter'],
  [/\bhatch\b/, 'hatch'],
  [/\btailgate\b/, 'tailgate'],
  [/\bbed\b/, 'bed_side'],
  [/\bdoor\b/, 'door'],
  [/\bpillar\b/, 'pillar'],
  [/\b(sill|rocker)\b/, 'sill'],
  [/\bspoiler\b/, 'spoiler'],
  [/\bbox\b/, 'box_side'],
  [/\bhull\b/, 'hull_side'],
  [/\b(fairing|mudguard|cowl)\b/, 'fairing'],
  [/\bside\b/, 'van_side'],
  [/\broof\b/, 'roof'],
]

/** Kind and side that a panel's name tells, as a first guess to be changed at will. */
export function guessPanel(name: string): { kind: Panel['kind']; side: Panel['side'] } {
  const text = name.toLowerCase()
  const kind = KIND_WORDS.find(([words]) => words.test(text))?.[1] ?? 'other'
  const side = /\bleft\b|\bl$/.test(text)
    ? 'left'
    : /\bright\b|\br$/.test(text)
      ? 'right'
      : /\bfront\b/.test(text)
        ? 'front'
        : /\brear\b/.test(text)
          ? 'rear'
          : 'centre'
  return { kind, side }
}
