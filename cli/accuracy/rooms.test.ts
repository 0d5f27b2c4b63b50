import { filled } from '@marvet/core/audio/filled';
import { speechTransmissionIndex } from '@marvet/core/measure/speechTransmission';
import { convolved } from '@marvet/core/simulate/convolve';
import { withGaps } from '@marvet/core/simulate/dryVoice';
import { randomSource } from '@marvet/core/simulate/random';
import { mixed, reportOf, whiteNoise } from '@marvet/core/testing/signals';
import { describe, expect, it } from 'vitest';
import { dryVoices } from './voices.ts';

const RATE_HZ = 48_000;
const [clips] = dryVoices();
const dry = withGaps(clips!.slice(0, 5), [0.6, 0.9, 0.5, 1.2], RATE_HZ);

/** A dry voice in a room of noise that dies away, heard from so near that the direct sound is so many times as strong. */
function inRoom(decayS: number, directToRoom: number) {
  const random = randomSource(9);
  const room = filled(Math.round(1.3 * decayS * RATE_HZ), (n) => random.normal() * 10 ** ((-3 * n) / (decayS * RATE_HZ)));
  const power = room.reduce((sum, x) => sum + x * x, 0);
  const response = room.map((x, n) => x / Math.sqrt(power) + (n === 0 ? Math.sqrt(directToRoom) : 0));
  const heard = convolved(dry, response).map((x) => x / 4);
  return reportOf([mixed(heard, whiteNoise(-80, heard.length / RATE_HZ, 3))]).channels[0]!;
}

describe('a room that is known exactly', () => {
  it.each([
    [2.5, 0],
    [2.5, 1],
    [2.5, 4],
    [1.5, 0],
    [1.5, 3],
    [0.8, 0],
    [0.8, 4],
    [0.4, 3],
  ])('decay %f s, direct sound %f times as strong: the transmission index within 0.1, the decay within a quarter', (decayS, directToRoom) => {
    const { intelligibility, character } = inRoom(decayS, directToRoom);
    // Nothing but the room stands between mouth and file, so the standard's formula alone says what is true.
    expect(Math.abs(intelligibility.sti! - speechTransmissionIndex([60, 60, 60, 60, 60, 60, 60], decayS, directToRoom))).toBeLessThan(0.1);
    expect(Math.abs(character.reverberationS! / decayS - 1)).toBeLessThan(0.25);
  });
});
