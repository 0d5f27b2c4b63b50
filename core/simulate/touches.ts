import { Cascade, highPass, lowPass } from '../audio/biquad.ts';
import { filled } from '../audio/filled.ts';
import { type Cloth, FRICTION_HZ } from './cloth.ts';
import { splAmplitude } from './noiseBed.ts';
import type { RandomSource } from './random.ts';

/** Something that was laid over a signal: when it began, when it was over. */
export interface Laid {
  startS: number;
  endS: number;
}

/** Adds a shape at a time, scaled so that its peak has a level in dB SPL; 1 is 1 Pa. */
function lay(into: Float64Array, rateHz: number, startS: number, shape: Float64Array, peakDbSpl: number): Laid {
  const peak = shape.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-12);
  const scale = splAmplitude(peakDbSpl) / peak;
  const start = Math.round(startS * rateHz);
  for (let index = 0; index < shape.length && start + index < into.length; index++) into[start + index] = (into[start + index] as number) + scale * (shape[index] as number);
  return { startS, endS: startS + shape.length / rateHz };
}

/** A knock on the body, the boom or the cable: a low, heavily damped ring with a short tap in front. */
export function layThump(into: Float64Array, rateHz: number, startS: number, peakDbSpl: number, random: RandomSource): Laid {
  const length = Math.round(0.12 * rateHz);
  const frequencyHz = 28 + 40 * random.uniform();
  const second = frequencyHz * (1.7 + 0.5 * random.uniform());
  const decayS = 0.018 + 0.02 * random.uniform();
  const shape = filled(length, (index) => {
    const t = index / rateHz;
    const rise = 1 - Math.exp(-t / 0.002);
    const ring = Math.sin(2 * Math.PI * frequencyHz * t) * Math.exp(-t / decayS) + 0.4 * Math.sin(2 * Math.PI * second * t) * Math.exp(-t / (decayS * 0.6));
    return rise * ring + 0.02 * random.normal() * Math.exp(-t / 0.004);
  });
  return lay(into, rateHz, startS, shape, peakDbSpl);
}

/** The blast of air of a plosive that hits the capsule: low noise, over within a tenth of a second. */
export function layPlosive(into: Float64Array, rateHz: number, startS: number, peakDbSpl: number, random: RandomSource): Laid {
  const length = Math.round(0.1 * rateHz);
  const shape = filled(length, () => random.normal());
  new Cascade([lowPass(70, 0.6, rateHz), lowPass(160, 0.6, rateHz), highPass(15, Math.SQRT1_2, rateHz)]).process(shape, shape, length);
  const swing = 20 + 20 * random.uniform();
  for (let index = 0; index < length; index++) {
    const t = index / rateHz;
    const envelope = (t / 0.012) * Math.exp(1 - t / 0.012);
    shape[index] = envelope * ((shape[index] as number) + 0.03 * Math.sin(2 * Math.PI * swing * t));
  }
  return lay(into, rateHz, startS, shape, peakDbSpl);
}

/**
 * Cloth moving over the capsule: friction, in which threads stick and slip many times a second. Each slip
 * is a short burst; the cloth says which part of the spectrum it fills.
 */
export function layRustle(into: Float64Array, rateHz: number, startS: number, lengthS: number, peakDbSpl: number, cloth: Cloth, random: RandomSource): Laid {
  const shape = new Float64Array(Math.round(lengthS * rateHz));
  for (let t = 0.01 * random.uniform(); t < lengthS - 0.03; t += 0.012 + 0.05 * random.uniform()) {
    const start = Math.round(t * rateHz);
    const decayS = 0.004 + 0.02 * random.uniform();
    const strength = 0.25 + 0.75 * random.uniform();
    const end = Math.min(shape.length, start + Math.round(5 * decayS * rateHz));
    for (let index = start; index < end; index++) {
      const at = (index - start) / rateHz;
      shape[index] = (shape[index] as number) + strength * random.normal() * Math.exp(-at / decayS) * (1 - Math.exp(-at / 0.0008));
    }
  }
  const [fromHz, toHz] = FRICTION_HZ[cloth];
  new Cascade([highPass(fromHz, 0.6, rateHz), lowPass(toHz, 0.7, rateHz)]).process(shape, shape, shape.length);
  return lay(into, rateHz, startS, shape, peakDbSpl);
}

/** A static discharge or a bad contact: a jump of the wave that is over within a fraction of a millisecond. */
export function layClick(into: Float64Array, rateHz: number, startS: number, peak: number, random: RandomSource): Laid {
  const start = Math.round(startS * rateHz);
  const length = 1 + Math.floor(4 * random.uniform());
  const sign = random.uniform() < 0.5 ? -1 : 1;
  for (let index = 0; index < length && start + index < into.length; index++) {
    into[start + index] = (into[start + index] as number) + sign * peak * (index === 0 ? 1 : -0.5 * random.uniform());
  }
  return { startS, endS: startS + length / rateHz };
}
