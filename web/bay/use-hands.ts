import { useMemo } from 'react'
import { beganBy, type Hands } from '@/core/engines/run-sheet/cards'
import { useJob } from '@/web/job/job-state'

/** Who works at this device, and who began what. */
export function useHands(): Hands {
  const { ledger, member } = useJob('ledger', 'member')
  return useMemo(() => ({ me: member.name, beganBy: beganBy(ledger) }), [ledger, member.name])
}
