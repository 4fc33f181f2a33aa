import { z } from 'zod'

const whole = (min: number, max: number, otherwise: number) =>
  z.coerce.number({ error: 'a whole number' }).int('a whole number').min(min).max(max).default(otherwise)
const filled = (text: string | undefined): string | undefined =>
  text === undefined || text.trim() === '' ? undefined : text
const url = (protocol: RegExp) => z.url({ protocol })

/** What may be set from outside. Anything else than what is described here stops the start and is named. */
const Environment = z.object({
  /** The application's role: may read and write what it needs, owns nothing. */
  DATABASE_URL: url(/^postgres(ql)?$/),
  /** The role that owns the tables; used by migrations only. */
  DATABASE_OWNER_URL: url(/^postgres(ql)?$/).optional(),
  DATABASE_POOL: whole(2, 200, 10),
  AUTH_SECRET: z.string().min(32, 'at least 32 characters').optional(),
  APP_URL: url(/^https?$/).optional(),
  /** Tries at one person's sign-in before each further one has to wait. */
  AUTH_ATTEMPTS: whole(1, 100_000, 5),
  /** Addresses of proxies whose `X-Forwarded-For` is believed, parted by commas. */
  TRUSTED_PROXIES: z
    .string()
    .default('')
    .transform((text) =>
      text
        .split(',')
        .map((part) => part.trim())
        .filter((part) => part !== ''),
    )
    .pipe(z.array(z.union([z.ipv4(), z.ipv6()], { error: 'IP addresses, parted by commas' })).max(50)),
  CUTTING_TABLE_DIR: z.string().optional(),
  /** The infrared thermometer of the bay: none, or a stand-in to try it with. */
  THERMOMETER: z.enum(['simulated'], { error: 'simulated, or nothing' }).optional(),
  /** Threads beside the server for what takes long. */
  THREADS: whole(1, 32, 2),
  /** Layouts of fleets that one worker process lays out at once, each of another shop. */
  LAYOUTS_AT_ONCE: whole(1, 32, 4),
  /** Panels and layouts that one worker process solves at once behind the plans that lack them. */
  SOLVERS: whole(1, 32, 2),
  STREAMS_PER_MEMBER: whole(1, 10_000, 8),
})
export type Environment = z.infer<typeof Environment>

/**
 * The parsed environment, or a sentence a line that names each value at fault (never the value: it may be a secret).
 */
export function readEnvironment(source: Record<string, string | undefined>): Environment | { faults: string[] } {
  const given = Object.fromEntries(Object.keys(Environment.shape).map((key) => [key, filled(source[key])]))
  const parsed = Environment.safeParse(given)
  if (parsed.success) return parsed.data
  return { faults: parsed.error.issues.map((issue) => `${String(issue.path[0])}: ${issue.message}`) }
}

/** What this process was started with. Throws with every fault named. */
export function environment(): Environment {
  const read = readEnvironment(process.env)
  if ('faults' in read) throw new Error(`The environment is not usable. ${read.faults.join('; ')}`)
  return read
}
