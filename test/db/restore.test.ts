import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closeDatabase } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { startCluster } from '../../scripts/cluster.mjs'
import { postgresBin } from '../../scripts/packages.mjs'
import { shopWorld, type ShopWorld } from './world'

/** The commands of the section on backup and restore in docs/operate.md, as they stand there. */
const commands = (): string[] => {
  const text = readFileSync('docs/operate.md', 'utf8')
  const section = text.slice(text.indexOf('## Backup and restore'))
  return (/```sh\n([\s\S]*?)```/.exec(section)?.[1] ?? '').trim().split('\n')
}

let world: ShopWorld
let admin: string
const folder = mkdtempSync(join(tmpdir(), 'cuirass-restore-'))
beforeAll(async () => {
  world = await shopWorld()
  admin = (await startCluster({ name: 'test-pg', usualPort: 54811, throwaway: true })).admin
})
afterAll(async () => {
  await closeWorkQueue()
  const client = new pg.Client({ connectionString: admin })
  await client.connect()
  await client.query('drop database if exists cuirass_new with (force)')
  await client.end()
  await closeDatabase()
  rmSync(folder, { recursive: true, force: true })
})

const asking = async <T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> => {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}
const here = (url: string | undefined, name: string) => {
  const at = new URL(url ?? '')
  at.pathname = `/${name}`
  return at.href
}

describe('a restore as it is written', () => {
  it('gives back every row, and the application may do what it may, no more', async () => {
    const server = admin.replace(/\/postgres$/, '')
    const { DATABASE_URL, DATABASE_OWNER_URL } = process.env
    const source = new URL(DATABASE_URL ?? '').pathname.slice(1)
    await asking(admin, (c) => c.query('drop database if exists cuirass_new with (force)'))
    for (const command of commands()) {
      // The addresses of this cluster in place of those that the page leaves open.
      const line = command
        .replace('$SUPERUSER_URL/cuirass"', `$SUPERUSER_URL/${source}"`)
        .replaceAll('cuirass.dump', join(folder, 'cuirass.dump'))
        .replace('postgres://cuirass:…/cuirass_new', here(DATABASE_URL, 'cuirass_new'))
        .replace('postgres://cuirass_owner:…/cuirass_new', here(DATABASE_OWNER_URL, 'cuirass_new'))
      const path = `${postgresBin().bin}:${process.env.PATH}`
      execFileSync('sh', ['-c', line], { env: { ...process.env, SUPERUSER_URL: server, PATH: path }, stdio: 'pipe' })
    }
    expect(commands()).toHaveLength(4)
    // Of this test's own shop: others in this database go on while it is dumped.
    const counts = (name: string) =>
      asking(`${server}/${name}`, async (c) => {
        const { rows: there } = await c.query<{ name: string }>(
          `select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'shop_id' order by 1`,
        )
        const out: Record<string, number> = {}
        for (const { name: table } of there) {
          const { rows } = await c.query(`select count(*)::int as n from "${table}" where shop_id = $1`, [
            world.who.lead.shopId,
          ])
          out[table] = rows[0].n
        }
        return out
      })
    expect(await counts(source)).toMatchObject({ member: 4, job: 1, photo: 1, stock_item: 1 })
    expect(await counts('cuirass_new')).toEqual(await counts(source))
    await asking(here(DATABASE_URL, 'cuirass_new'), async (c) => {
      expect((await c.query('select id from job')).rows).toEqual([])
      await c.query(`select set_config('cuirass.shop', $1, false)`, [world.who.lead.shopId])
      await expect(c.query('delete from ledger')).rejects.toThrow(/permission denied/)
      await expect(c.query('truncate revision')).rejects.toThrow(/permission denied/)
      expect((await c.query('select count(*)::int as n from job')).rows[0].n).toBe(1)
    })
  }, 120_000)
})
