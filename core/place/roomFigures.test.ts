import { describe, expect, it } from 'vitest';
import { decayTimeOfResponseS } from '../simulate/decayTime.ts';
import { roomResponse } from '../simulate/imageRoom.ts';
import { randomSource } from '../simulate/random.ts';
import { criticalDistanceM, decaysOf, directAtDb, roomRemarks } from './roomFigures.ts';
import { meanAbsorption, SURFACES } from './surfaces.ts';

const even = (share: number) => Array.from({ length: 6 }, () => share);
const omni = { pressureShare: 1, tubeM: 0 };

describe('decays of a room', () => {
  // By hand: 60 m³ with 94 m² of surface.
  const walls = { sizeM: [5, 4, 3] as const, absorption: even(0.2) };

  it('are by Sabine and by Eyring what their formulas have', () => {
    for (const { sabineS, eyringS } of decaysOf(walls)) {
      expect(sabineS).toBeCloseTo((0.161 * 60) / (94 * 0.2), 9);
      expect(eyringS).toBeCloseTo((0.161 * 60) / (94 * -Math.log(0.8)), 9);
    }
  });

  it('agree in hard rooms, and part where much is taken up: Sabine is the longer', () => {
    const [hard] = decaysOf({ ...walls, absorption: even(0.02) });
    expect(hard!.sabineS / hard!.eyringS).toBeCloseTo(1, 1);
    const [soft] = decaysOf({ ...walls, absorption: even(0.6) });
    expect(soft!.sabineS).toBeGreaterThan(1.4 * soft!.eyringS);
  });

  it.each([
    [[9, 6, 3.5], 0.12],
    [[5, 4, 3], 0.2],
    [[3, 2.4, 2.2], 0.1],
  ] as const)('of %j at %f are within 10 %% of what the image room rings', (sizeM, share) => {
    const room = { sizeM, absorption: even(share) };
    const response = roomResponse(
      { ...room, talkerM: [0.3 * sizeM[0], 0.4 * sizeM[1], 1.5], microphoneM: [0.7 * sizeM[0], 0.6 * sizeM[1], 1.4], pattern: omni },
      16_000,
      randomSource(4),
    );
    expect(Math.abs(decayTimeOfResponseS(response, 16_000) / decaysOf(room)[3]!.eyringS - 1)).toBeLessThan(0.1);
  });
});

describe('the critical distance', () => {
  const walls = { sizeM: [6, 5, 3] as const, absorption: even(0.2) };
  const byHand = Math.sqrt((126 * 0.2) / 0.8 / (16 * Math.PI));

  it('is by hand that of the room constant; a cardioid’s is the root of three farther, a hypercardioid’s twice', () => {
    expect(criticalDistanceM(walls, omni, 3)).toBeCloseTo(byHand, 6);
    expect(criticalDistanceM(walls, { pressureShare: 0.5, tubeM: 0 }, 3)).toBeCloseTo(Math.sqrt(3) * byHand, 3);
    expect(criticalDistanceM(walls, { pressureShare: 0.25, tubeM: 0 }, 3)).toBeCloseTo(2 * byHand, 3);
  });

  it('a tube reaches as far as its capsule in the lows, and farther in the highs', () => {
    const tube = { pressureShare: 0.37, tubeM: 0.25 };
    const capsule = { pressureShare: 0.37, tubeM: 0 };
    expect(criticalDistanceM(walls, tube, 0) / criticalDistanceM(walls, capsule, 0)).toBeCloseTo(1, 1);
    expect(criticalDistanceM(walls, tube, 5)).toBeGreaterThan(1.4 * criticalDistanceM(walls, capsule, 5));
  });

  it('there both are equal, and at half of it the voice is 6 dB over', () => {
    expect(directAtDb(0.8, 0.8)).toBe(0);
    expect(directAtDb(0.8, 0.4)).toBeCloseTo(20 * Math.log10(2), 9);
  });

  it('the image room has the direct sound over the rest within 1 dB of theory, in three rooms', () => {
    for (const [sizeM, share] of [
      [[9, 6, 3.5], 0.12],
      [[6, 5, 3], 0.2],
      [[12, 8, 5], 0.08],
    ] as const) {
      const room = { sizeM, absorption: even(share) };
      const talkerM = [0.36 * sizeM[0], 0.43 * sizeM[1], 1.5] as const;
      const distanceM = 1.2;
      const rateHz = 16_000;
      const ratios = Array.from({ length: 6 }, (_, turn) => {
        const angle = (turn * Math.PI) / 3;
        const microphoneM = [talkerM[0] + distanceM * Math.cos(angle), talkerM[1] + distanceM * Math.sin(angle), 1.5] as const;
        const response = roomResponse({ ...room, talkerM, microphoneM, pattern: omni }, rateHz, randomSource(11 + turn));
        const direct = 1 / distanceM ** 2;
        const all = response.reduce((sum, x) => sum + x * x, 0);
        return direct / (all - direct);
      });
      const mean = 10 * Math.log10(ratios.length / ratios.reduce((sum, ratio) => sum + 1 / ratio, 0));
      expect(Math.abs(mean - directAtDb(criticalDistanceM(room, omni, 3), distanceM))).toBeLessThan(1);
    }
  });
});

describe('surfaces', () => {
  it('count by their areas: half of the walls hung with drapes', () => {
    const share = meanAbsorption([5, 4, 3], { floor: 'concrete', ceiling: 'concrete', walls: 'concrete', onWalls: 'heavy drapes', onWallsShare: 0.5 });
    // 20 + 20 m² of floor and ceiling, 54 m² of walls, at 1 kHz.
    expect(share[3]).toBeCloseTo((67 * 0.02 + 27 * 0.72) / 94, 9);
  });

  it('take up between nothing and all', () => {
    for (const { absorption } of SURFACES) for (const share of absorption) expect(share > 0 && share < 1).toBe(true);
  });
});

describe('remarks about a room', () => {
  it('are for small hard ones, bare ones and square ones, and none for a furnished one', () => {
    const said = (sizeM: [number, number, number], share: number) => roomRemarks({ sizeM, absorption: even(share) }).join(' ');
    expect(said([3, 2.4, 2.2], 0.1)).toContain('Small and hard');
    expect(said([9, 6, 3.5], 0.05)).toContain('flutter');
    expect(said([5, 5, 3], 0.3)).toContain('nearly as long');
    expect(said([7, 5, 3], 0.3)).toBe('');
  });
});
