import type { RandomSource } from './random.ts';

/** A break in the sound of a radio link. */
export interface Dropout {
  startS: number;
  endS: number;
}

/**
 * A radio link: its own hiss, and breaks that come the oftener and last the longer the further the
 * talker is beyond the reliable distance. Within it there are none. Edges take 1 ms, as a receiver's
 * mute does.
 */
export function throughRadio(
  signal: Float64Array,
  rateHz: number,
  link: { reliableToM: number; noiseDbfs: number; distanceM: number },
  random: RandomSource,
): { signal: Float64Array; dropouts: Dropout[] } {
  const hiss = 10 ** (link.noiseDbfs / 20);
  const out = new Float64Array(signal.length);
  for (let index = 0; index < out.length; index++) out[index] = (signal[index] as number) + hiss * random.normal();
  const beyond = link.distanceM / link.reliableToM;
  const dropouts: Dropout[] = [];
  if (beyond <= 1) return { signal: out, dropouts };
  const perSecond = Math.min(3, 0.5 * (beyond - 1) + 0.15);
  const lengthS = signal.length / rateHz;
  let atS = 0.6 - Math.log(1 - random.uniform()) / perSecond / 2;
  while (atS < lengthS - 0.3) {
    const endS = Math.min(lengthS, atS + 0.02 + 0.06 * random.uniform() * Math.min(2, beyond));
    dropouts.push({ startS: atS, endS });
    atS = endS + 0.1 - Math.log(1 - random.uniform()) / perSecond;
  }
  const ramp = Math.round(rateHz * 0.001);
  for (const { startS, endS } of dropouts) {
    const from = Math.round(startS * rateHz);
    const to = Math.min(out.length, Math.round(endS * rateHz));
    for (let index = from; index < to; index++) {
      const open = Math.max(0, 1 - (index - from) / ramp, 1 - (to - index) / ramp);
      out[index] = (out[index] as number) * open;
    }
  }
  return { signal: out, dropouts };
}
