/** What checks a typed plan and an entry by their schemas. */
export { soundPlan } from '@/core/model/plan/hold-back'
export { LogPayload } from '@/core/model/log/schema'
export { firstFault } from '@/core/kit/first-fault'
