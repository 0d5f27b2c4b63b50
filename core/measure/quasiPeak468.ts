import { amplitudeDb } from '../audio/decibel.ts';
import { filter468 } from '../audio/weighting468.ts';

/** Two rectifiers side by side, one quick and one slow, and the share of the quick one in the reading. */
const QUICK = { chargeS: 0.00117, dischargeS: 1.84, share: 0.444 };
const SLOW = { chargeS: 0.0757, dischargeS: 20 };
/** The pauses are gone through again and again until the needle has had this long to settle. */
const SETTLE_S = 3;

/**
 * The needle of a quasi-peak meter. Its charge and discharge times are fitted so that single and
 * repeated 5 kHz bursts read what ITU-R BS.468-4 clause 2 asks for.
 */
export class QuasiPeakMeter {
  private readonly quickUp: number;
  private readonly quickDown: number;
  private readonly slowUp: number;
  private readonly slowDown: number;
  private quick = 0;
  private slow = 0;

  constructor(sampleRateHz: number) {
    const rate = (timeS: number) => 1 - Math.exp(-1 / (timeS * sampleRateHz));
    this.quickUp = rate(QUICK.chargeS);
    this.quickDown = rate(QUICK.dischargeS);
    this.slowUp = rate(SLOW.chargeS);
    this.slowDown = rate(SLOW.dischargeS);
  }

  /** Moves on by one sample and returns where the needle is, before calibration. */
  next(sample: number): number {
    const x = sample < 0 ? -sample : sample;
    this.quick += (x > this.quick ? this.quickUp : this.quickDown) * (x - this.quick);
    this.slow += (x > this.slow ? this.slowUp : this.slowDown) * (x - this.slow);
    return QUICK.share * this.quick + (1 - QUICK.share) * this.slow;
  }
}

const calibrations = new Map<number, number>();

/** What a steady 1 kHz tone with an RMS of 1 moves the needle to. */
function calibration(sampleRateHz: number): number {
  let reading = calibrations.get(sampleRateHz);
  if (reading === undefined) {
    const meter = new QuasiPeakMeter(sampleRateHz);
    reading = 0;
    const samples = Math.round(sampleRateHz * 1.5);
    for (let index = 0; index < samples; index++) reading = meter.next(Math.SQRT2 * Math.sin((2 * Math.PI * 1000 * index) / sampleRateHz));
    calibrations.set(sampleRateHz, reading);
  }
  return reading;
}

/**
 * Noise level behind the 468 weighting on a quasi-peak meter (ITU-R BS.468-4), in dBFS; a 1 kHz tone
 * reads its RMS. The meter is led through the stretches one after another until it has settled, and
 * once more for the reading, the mean of the needle.
 * @returns null when there is nothing to hear
 */
export function quasiPeak468(stretches: readonly Float64Array[], sampleRateHz: number): number | null {
  const weighted = stretches.map((samples) => filter468(samples, sampleRateHz));
  const length = weighted.reduce((sum, samples) => sum + samples.length, 0);
  if (length < sampleRateHz * 0.05) return null;
  const meter = new QuasiPeakMeter(sampleRateHz);
  const rounds = Math.ceil((SETTLE_S * sampleRateHz) / length);
  let sum = 0;
  for (let round = 0; round <= rounds; round++) {
    sum = 0;
    for (const samples of weighted) for (let index = 0; index < samples.length; index++) sum += meter.next(samples[index] as number);
  }
  return amplitudeDb(sum / length / calibration(sampleRateHz));
}
