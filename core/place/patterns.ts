import type { Item } from '../domain/item.ts';
import type { MicrophonePattern } from '../simulate/microphone.ts';

/** First-order patterns as shares of pressure, and a tube of usual length in front of a supercardioid. */
export const PATTERN_OF: Readonly<Record<NonNullable<Item['pattern']>, MicrophonePattern>> = {
  omnidirectional: { pressureShare: 1, tubeM: 0 },
  subcardioid: { pressureShare: 0.7, tubeM: 0 },
  cardioid: { pressureShare: 0.5, tubeM: 0 },
  supercardioid: { pressureShare: 0.37, tubeM: 0 },
  hypercardioid: { pressureShare: 0.25, tubeM: 0 },
  'interference tube': { pressureShare: 0.37, tubeM: 0.25 },
  'figure of eight': { pressureShare: 0, tubeM: 0 },
};
