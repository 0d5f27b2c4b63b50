import type { MicrophonePattern } from './microphone.ts';
import type { Placement } from './placement.ts';

/** How one candidate hears, for the simulator. */
export interface SimulatedCandidate {
  id: string;
  /** A worn microphone keeps its distance from the mouth, wherever the talker goes. */
  wornAtM: number | null;
  pattern: MicrophonePattern;
  /** Where on a body it sits; in the open for a boom. */
  placement: Placement;
  selfNoiseDba: number;
  /** Level at which the first stage flattens, in dB SPL peak. */
  maxSplDb: number;
  /** Level of 94 dB SPL at the recorder, in dBFS. */
  gainDbfs: number;
  /** Lift of the capsule's top end above 6 kHz, in dB. */
  topLiftDb: number;
  /** What all cloth over it takes away at the top, in dB; 0 in the open. */
  clothLossDb: number;
  /** How much more or less wind it takes than a bare omnidirectional capsule, in dB. */
  windSensitivityDb: number;
  /** A radio link: distance at which break-ups begin; null for a cable. */
  radio: { reliableToM: number; noiseDbfs: number } | null;
}
