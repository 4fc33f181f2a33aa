import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'

/** Habits of the house that can be counted. Exit 1 where one is broken. */
const LIMITS = {
  optOuts: 25,
  lineLength: 140,
  fileLines: 300,
  rawTags: 0,
  coreCasts: 250,
  leastTests: 0.255,
  themeLines: 450,
}

const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard'], { encoding: 'utf8' })
  .split('\n')
  .filter((f) => /\.(tsx?|mjs|mts)$/.test(f) && !f.startsWith('db/migrations/') && existsSync(f))
  .map((name) => ({ name, lines: readFileSync(name, 'utf8').split('\n') }))
const styles = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '*.scss'], { encoding: 'utf8' })
  .split('\n')
  .filter((f) => f !== '' && existsSync(f))
  .map((name) => ({ name, text: readFileSync(name, 'utf8').replaceAll(/\/\*[\s\S]*?\*\/|\/\/.*$/gm, '') }))
const where = (list) => list.slice(0, 12).join('\n    ')
let bad = false
const count = (what, found, limit, least = false) => {
  const broken = least ? found.n < limit : found.n > limit
  bad ||= broken
  const places = broken && found.at?.length > 0 ? `\n    ${where(found.at)}` : ''
  console.log(`${broken ? '✗' : '✓'} ${what}: ${found.n} (${least ? 'at least' : 'at most'} ${limit})${places}`)
}
const matches = (keep, test) => {
  const at = files
    .filter((f) => keep(f.name))
    .flatMap((f) => f.lines.flatMap((line, i) => (test(line, f.lines, i) ? [`${f.name}:${i + 1}`] : [])))
  return { n: at.length, at }
}

const optOut = new RegExp(['prettier', 'ignore'].join('-'))
count(
  'formatter opt-outs',
  matches(
    () => true,
    (line) => optOut.test(line),
  ),
  LIMITS.optOuts,
)
count(
  `code lines over ${LIMITS.lineLength} characters`,
  matches(
    (name) => !name.startsWith('web/words/'),
    (line) => line.length > LIMITS.lineLength,
  ),
  0,
)
const long = files.filter((f) => !f.name.startsWith('test/') && f.lines.length > LIMITS.fileLines + 1)
count(
  `files over ${LIMITS.fileLines} lines, tests left aside`,
  { n: long.length, at: long.map((f) => `${f.name}: ${f.lines.length - 1}`) },
  0,
)
count(
  'raw form and table tags outside the kit',
  matches(
    (name) => /^(web|app)\/.*\.tsx$/.test(name) && !/^web\/(kit|charts)\//.test(name),
    (line) => /<(button|input|select|textarea|table|form)\b/.test(line),
  ),
  LIMITS.rawTags,
)
count(
  'casts in core',
  matches(
    (name) => name.startsWith('core/'),
    (line) => /\bas (?!const\b)[A-Za-z{([(]/.test(line) && !/^\s*(\*|\/\/|\/\*|import|export)/.test(line),
  ),
  LIMITS.coreCasts,
)
const size = (keep) => files.filter((f) => keep(f.name)).reduce((s, f) => s + f.lines.length, 0)
const share = size((name) => name.startsWith('test/')) / size(() => true)
count('share of tests', { n: Math.round(share * 1000) / 1000 }, LIMITS.leastTests, true)
const theme = styles.filter((f) => f.name.startsWith('web/theme/'))
count('lines of the theme', { n: theme.reduce((s, f) => s + f.text.split('\n').length, 0) }, LIMITS.themeLines)
// Bootstrap's own names and those of the date field are dressed, not made, here.
const dressed = /^(react-datepicker|btn|form)-?/
const parts = files.filter((f) => /^(web|app)\/.*\.tsx$/.test(f.name)).flatMap((f) => f.lines)
const words = new Set(parts.flatMap((line) => line.match(/[a-zA-Z][\w-]*/g) ?? []))
const unworn = styles.flatMap((f) =>
  [...f.text.matchAll(/\.([a-zA-Z][\w-]*)/g)]
    .map((m) => m[1])
    .filter((name) => !words.has(name) && !dressed.test(name))
    .map((name) => `${f.name}: .${name}`),
)
count('styles that nothing wears', { n: unworn.length, at: unworn }, 0)
process.exitCode = bad ? 1 : 0
