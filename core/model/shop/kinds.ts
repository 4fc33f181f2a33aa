/** What people of a shop can do beyond what everybody can. */
export const SKILLS = ['chrome', 'print', 'sheets', 'bumpers', 'beginner'] as const

/** Steps of the end, one of which a shop calls ready. */
export const READY_WITH = ['check_round', 'recheck', 'hand_over'] as const
