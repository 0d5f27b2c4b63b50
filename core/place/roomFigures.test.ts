import { describe, expect, it } from 'vitest';
import { decayTimeOfResponseS } from '../simulate/decayTime.ts';
import { roomResponse } from '../simulate/imageRoom.ts';
import { randomSource } from '../simulate/random.ts';
import { absorptionOfDecay, criticalDistanceM, decaysOf, directAtDb, roomRemarks, tubeWinsDb } from './roomFigures.ts';
import { meanAbsorption, PERSON_M2, SURFACES } from './surfaces.ts';

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
    const share = meanAbsorption([5, 4, 3], { floor: 'concrete', ceiling: 'concrete', walls: 'concrete', onWalls: 'heavy drapes', onWallsShare: 0.5, people: 0, upholsteryM2: 0 });
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

describe('a room that was heard', () => {
  it('takes up by its decay what rings as long again', () => {
    for (const decayS of [0.3, 0.8, 2.2]) {
      const absorption = absorptionOfDecay([5, 4, 3], decayS);
      for (const { eyringS } of decaysOf({ sizeM: [5, 4, 3], absorption })) expect(eyringS).toBeCloseTo(decayS, 6);
    }
  });

  it('is held to what a surface can take up', () => {
    expect(absorptionOfDecay([5, 4, 3], 100)[0]).toBe(0.01);
    expect(absorptionOfDecay([5, 4, 3], 0.001)[0]).toBe(0.99);
  });

  it('takes up more with soft furniture in it: by hand, six square metres of it', () => {
    const bare = { floor: 'concrete', ceiling: 'concrete', walls: 'concrete', onWalls: 'concrete', onWallsShare: 0, people: 0 };
    const [without, full] = [0, 6].map((upholsteryM2) => meanAbsorption([5, 4, 3], { ...bare, upholsteryM2 })) as [number[], number[]];
    expect((full[3] as number) - (without[3] as number)).toBeCloseTo((6 * 0.67) / 94, 9);
  });

  it('takes up more with people in it: by hand, ten of them in 94 m² of concrete', () => {
    const bare = { floor: 'concrete', ceiling: 'concrete', walls: 'concrete', onWalls: 'concrete', onWallsShare: 0, upholsteryM2: 0 };
    const [without, full] = [0, 10].map((people) => meanAbsorption([5, 4, 3], { ...bare, people })) as [number[], number[]];
    full.forEach((share, band) => {
      expect(share - (without[band] as number)).toBeCloseTo((10 * (PERSON_M2[band] as number)) / 94, 9);
    });
  });
});

describe('a tube in a diffuse field', () => {
  it('wins nothing of the lows and some decibels of the highs, the longer the more', () => {
    const short = tubeWinsDb({ pressureShare: 0.37, tubeM: 0.12 });
    const long = tubeWinsDb({ pressureShare: 0.37, tubeM: 0.3 });
    expect(Math.abs(long[0] as number)).toBeLessThan(0.3);
    expect(long[5]).toBeGreaterThan(3);
    expect(long[4]).toBeGreaterThan(short[4] as number);
    expect(tubeWinsDb({ pressureShare: 0.37, tubeM: 0 })).toEqual([0, 0, 0, 0, 0, 0]);
  });
});
