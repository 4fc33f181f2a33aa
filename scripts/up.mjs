import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { dataDir, ensureDatabase, freePort, root, secrets, startCluster } from './cluster.mjs'
import { postgresBin } from './packages.mjs'
import { answers, build, checkNode, installModules, runScript, serve, startTable, startWorker } from './prepare.mjs'
import { supervise } from './supervise.mjs'
import { endWith, step, Stop } from './say.mjs'

const [mode = 'demo', ...flags] = process.argv.slice(2)
const unknown = flags.filter((f) => f !== '--reset')
const reset = flags.includes('--reset')
const runFile = join(dataDir, 'run.json')
const DEMO_SHOP_ID = '5a170000-0000-4000-8000-000000000001'

/** Whether a process of that number is the one that we wrote down, and not a later one of the same number. */
const isOurs = (pid, word) => {
  try {
    return (
      readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(word) &&
      readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`CUIRASS_ROOT=${root}\0`)
    )
  } catch {
    return false
  }
}

function recover() {
  if (!existsSync(runFile)) return 'nothing to clear'
  const was = JSON.parse(readFileSync(runFile, 'utf8'))
  if (isOurs(was.starter, 'up.mjs')) throw new Stop(`Already running at ${was.address} (process ${was.starter}).`)
  if (was.server && isOurs(was.server, 'next')) process.kill(was.server, 'SIGKILL')
  for (const pid of was.helpers ?? []) if (isOurs(pid, root)) process.kill(pid, 'SIGKILL')
  rmSync(runFile, { force: true })
  return 'cleared up after a start that was cut off'
}

async function choosePort() {
  const asked = process.env.PORT
  if (!asked) return freePort(3000)
  const port = Number(asked)
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Stop(`PORT is "${asked}"; give a number from 1 to 65535.`)
  if ((await freePort(port)) !== port) throw new Stop(`Port ${port} is taken; set PORT to another one.`)
  return port
}

/** The demo shop's own folder below that of the cutting tables. */
const demoTable = (env) => join(env.CUTTING_TABLE_DIR ?? process.env.CUTTING_TABLE_DIR, DEMO_SHOP_ID)

/** Worker processes beside the server; WORKERS sets how many. */
function workers() {
  const asked = Number(process.env.WORKERS ?? 1)
  if (!Number.isInteger(asked) || asked < 0 || asked > 32)
    throw new Stop(`WORKERS is "${process.env.WORKERS}"; give a number from 0 to 32.`)
  return asked
}

function checkFlags() {
  if (unknown.length > 0 || !['demo', 'start'].includes(mode))
    throw new Stop(`Unknown: ${unknown.join(' ')}. bin/demo takes --reset; bin/start takes nothing.`)
  if (reset && process.env.DATABASE_URL)
    throw new Stop('--reset works on the private cluster only, not on the database of DATABASE_URL.')
  if (reset && mode !== 'demo') throw new Stop('--reset belongs to bin/demo.')
}

/** What the server and its helpers are started with. */
const environment = (databases, address) => ({
  ...databases,
  AUTH_SECRET: process.env.AUTH_SECRET ?? secrets().authSecret,
  APP_URL: address,
  CUIRASS_ROOT: root,
  // The demo's own table is simulated; a real one is named by its folder.
  ...(mode === 'demo' ? { THERMOMETER: 'simulated' } : {}),
  ...(mode === 'demo' && !process.env.CUTTING_TABLE_DIR ? { CUTTING_TABLE_DIR: join(dataDir, 'cutting-table') } : {}),
})

/** A start whose process is noted as soon as it is there. */
const noting = (note, start) => () => {
  const child = start()
  child.on('spawn', note)
  return child
}

/** Workers, and in the demo its cutting table. */
const startHelpers = (note, running, env) => [
  ...Array.from({ length: workers() }, () =>
    supervise(
      'worker',
      noting(note, () => startWorker(running)),
    ),
  ),
  ...(mode === 'demo'
    ? [
        supervise(
          'cutting table',
          noting(note, () => startTable(demoTable(env))),
        ),
      ]
    : []),
]

/** Loads the demo where it is not there yet; answers how to sign in. */
async function demoData(env) {
  let signIn = ''
  await step('Demo data', () => {
    signIn = runScript('load-demo.ts', env)
    return signIn.startsWith('already') ? 'already there' : 'loaded'
  })
  return signIn
}

/** What has to be there before anything is started. */
async function made(own) {
  await step('Looking for an earlier start', recover)
  if (own) await step('PostgreSQL from Debian', () => (postgresBin().installed ? 'installed' : 'there'))
  await step('npm packages', installModules)
  await step('Production build', build)
}

function greet(address, signIn) {
  process.stdout.write(
    `\nCuirass is at ${address}\n${signIn ? `Demo sign-in: ${signIn.replace(/^already: /, '')}\n` : ''}Ctrl-C stops it.\n`,
  )
}

async function main() {
  checkFlags()
  checkNode()
  const own = !process.env.DATABASE_URL
  let cluster = null
  let server = null
  let helpers = []
  let ending = false
  const stopAll = (signal) => {
    server?.kill(signal)
    for (const p of helpers) p.kill(signal)
    cluster?.stop()
    rmSync(runFile, { force: true })
  }
  const end = (code) => {
    if (ending) return
    ending = true
    stopAll('SIGTERM')
    process.exit(code)
  }
  await made(own)
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0))
  try {
    let databases = {}
    if (own)
      await step('Private database', async () => {
        cluster = await startCluster()
        databases = await ensureDatabase(cluster, 'cuirass', { anew: reset })
        return `${cluster.fresh ? 'made' : cluster.tookUp ? 'taken up' : 'started'} on 127.0.0.1:${cluster.port}`
      })
    const port = await choosePort()
    const address = process.env.APP_URL ?? `http://127.0.0.1:${port}`
    const env = environment(databases, address)
    await step('Migrations', () => runScript('migrate.ts', env))
    const signIn = mode === 'demo' ? await demoData(env) : ''
    // The owner's rights are for migrations alone.
    const running = { ...env, DATABASE_OWNER_URL: '' }
    await step('Server', async () => {
      const note = () => {
        if (!server || ending) return
        const pids = { server: server.pid, helpers: helpers.map((p) => p.pid) }
        writeFileSync(runFile, JSON.stringify({ starter: process.pid, ...pids, address }))
      }
      const start = () => serve(port, running, ['ignore', 'ignore', 'inherit'])
      server = supervise('server', noting(note, start), { givenUp: end })
      helpers = startHelpers(note, running, env)
      note()
      if (!(await answers(`http://127.0.0.1:${port}/sign-in`, 60, () => !ending)))
        throw new Stop('The server did not answer within a minute.')
      return 'answering'
    })
    greet(address, signIn)
  } catch (error) {
    stopAll('SIGKILL')
    throw error
  }
}

main().catch(endWith)
