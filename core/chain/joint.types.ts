/** Something about a joint of two links: it does not work, it works with care, or it cannot be told. */
export interface JointFinding {
  severity: 'fault' | 'care' | 'unknown';
  /** Names of both links. */
  joint: string;
  sentence: string;
  remedy: string;
}
