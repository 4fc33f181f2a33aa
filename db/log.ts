import pino from 'pino'

/** One line of JSON for each thing worth keeping; `LOG_LEVEL` says how much. */
export const log = pino({ level: process.env.LOG_LEVEL ?? 'info', base: null })
