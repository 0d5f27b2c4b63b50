/** What a moment can be beside a word and quiet. */
export const STANDOUT_KINDS = ['wind', 'handling', 'rustle', 'disturbance', 'plosive'] as const;
export type StandoutKind = (typeof STANDOUT_KINDS)[number];

/** What the trees are asked of each moment; each has a forest of its own. */
export const LIKELY_TARGETS = [...STANDOUT_KINDS, 'voice'] as const;
export type LikelyTarget = (typeof LIKELY_TARGETS)[number];
