import type { UnplacedWhy } from '@/core/engines/roll/contract'

const UNPLACED: Record<UnplacedWhy, string> = {
  wider_than_every_bin: 'wider than every roll',
  wider_unless_turned: 'wider than every roll, unless it may be turned',
  longer_than_every_bin: 'longer than every roll it fits across',
  longer_unless_turned: 'longer than every roll it fits across, unless it may be turned',
  no_room_left: 'no room left',
  no_lot_holds_group: 'no lot holds its whole group',
}

/** Why a piece lies nowhere; a layout kept by an older version says it in its own words. */
export const unplacedText = (why: string): string => (Object.hasOwn(UNPLACED, why) ? UNPLACED[why as UnplacedWhy] : why)
