import type { Plan } from '@/core/model/plan/schema'

export type Settings = Plan['layout']['drops']
