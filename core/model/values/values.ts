import { z } from 'zod'

export const Id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/)
export const Name = z.string().trim().min(1).max(120)
export const Note = z.string().max(2000)
export const Hex = z.string().regex(/^#[0-9a-f]{6}$/)
export const IsoDate = z.string().regex(/^\d{4}-\d{2}-\d{2}$/)
export const WallTime = z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/)
