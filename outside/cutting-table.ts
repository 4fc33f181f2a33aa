import { existsSync } from 'node:fs'
import { mkdir, readdir, readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'

/** What a cutting table says of a file it was given. Lengths mm. */
export const TableReport = z.object({
  file: z.string().max(200),
  state: z.enum(['received', 'cutting', 'done', 'rejected']),
  /** Why a file was not taken. */
  reason: z.string().max(300).nullable(),
  pieces: z.number().int().min(0),
  cutMm: z.number().min(0),
  doneMm: z.number().min(0),
  at: z.string().max(40),
})
export type TableReport = z.infer<typeof TableReport>

/** A cutting table, real or simulated: takes a drawing, and says how far it is. */
export interface CuttingTable {
  send(file: string, text: string): Promise<void>
  /** The newest report of each file whose name begins so. */
  reports(prefix: string): Promise<TableReport[]>
}

const FILE_NAME = /^[A-Za-z0-9._-]{1,180}\.(svg|dxf)$/

/** A table that watches a folder: drawings go into `in`, its reports lie in `reports`, one JSON file a drawing. */
export function folderTable(dir: string): CuttingTable {
  return {
    async send(file, text) {
      if (!FILE_NAME.test(file)) throw new Error('bad file name')
      await mkdir(join(dir, 'in'), { recursive: true })
      // Written beside and moved in, so that the table never sees half a drawing.
      const part = join(dir, `.${file}.part`)
      await writeFile(part, text)
      await rename(part, join(dir, 'in', file))
    },
    async reports(prefix) {
      const names = await readdir(join(dir, 'reports')).catch(() => [])
      const out: TableReport[] = []
      for (const name of names.filter((n) => n.startsWith(prefix) && n.endsWith('.json')).sort()) {
        try {
          const report = TableReport.safeParse(JSON.parse(await readFile(join(dir, 'reports', name), 'utf8')))
          if (report.success) out.push(report.data)
        } catch {
          // Half written: the next look finds it whole.
          continue
        }
      }
      return out
    },
  }
}

/**
 * The table of one shop; null where none is set up. Each shop has a folder of its own below that of the server, by its
 * id; a shop without one has no table.
 */
export const cuttingTable = (shopId: string): CuttingTable | null => {
  const dir = process.env.CUTTING_TABLE_DIR
  if (!dir || !/^[0-9a-f-]{36}$/.test(shopId)) return null
  const own = join(dir, shopId)
  return existsSync(own) ? folderTable(own) : null
}
