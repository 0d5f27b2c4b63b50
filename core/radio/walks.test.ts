import { describe, expect, it } from 'vitest';
import { type Device, deviceSchema } from '../domain/device.ts';
import { newId } from '../domain/identity.ts';
import { type Take, untouchedTake } from '../domain/take.ts';
import type { WalkEntry, WalkPress } from '../domain/walk.ts';
import { fieldDb } from '../simulate/radioFading.ts';
import { type RandomSource, randomSource } from '../simulate/random.ts';
import { walkScene } from '../simulate/walkScene.ts';
import { placeFrom } from './bearing.ts';
import { levelsAlongWalk } from './levelsAlongWalk.ts';
import { nextMarkM } from './nextMark.ts';
import { troubles } from './placeOrDevice.ts';
import { RELIABLE_CHANCE, rangeOf } from './rangeModel.ts';
import { walkMap } from './walkMap.ts';
import { distanceAt, walkTrack } from './walkTrack.ts';
import { type WalkWindow, walkWindows } from './walkWindows.ts';

const HOME = { latitudeDeg: 52, longitudeDeg: 2 };
const entry = (atS: number, press: WalkPress): WalkEntry => ({ ...press, id: newId(), atMs: atS * 1000 });
const mark = (atS: number, distanceM: number) => entry(atS, { what: 'mark', distanceM, by: 'peg' });
const leg = (atS: number, side: 'facing' | 'turned', heading: 'out' | 'back') => entry(atS, { what: 'leg', side, heading });
const setupId = newId();
const link = (atS: number, state: 'broke up' | 'unusable' | 'back again') => entry(atS, { what: 'link', setupIds: [setupId], state });
const walked = (lengthS: number, walk: WalkEntry[], more: Partial<Take> = {}): Take => ({
  ...untouchedTake({ id: newId(), trialId: newId(), slate: 1, position: 0, condition: { station: 's', script: 'x' }, setups: [{ id: setupId, candidateId: newId(), levels: {} }] }),
  status: 'done',
  startedAtMs: 0,
  stoppedAtMs: lengthS * 1000,
  walk,
  ...more,
});
const windowsOf = (take: Take, breakUpsS: number[] | null = null, track = walkTrack([], [])) =>
  walkWindows(take, take.setups[0]!, track, breakUpsS?.map((s) => s * 1000) ?? null).map(({ distanceM, brokeUp, side, heading }) => [
    Number(distanceM.toFixed(1)),
    brokeUp,
    side,
    heading,
  ]);

describe('a walk in windows', () => {
  it('knows how far between two marks, and which leg', () => {
    const take = walked(40, [mark(0, 0), leg(0, 'turned', 'out'), mark(20, 20), leg(20, 'facing', 'back'), mark(40, 0)]);
    expect(windowsOf(take)).toEqual([
      [5, false, 'turned', 'out'],
      [15, false, 'turned', 'out'],
      [15, false, 'facing', 'back'],
      [5, false, 'facing', 'back'],
    ]);
  });

  it('takes what was measured and what was pressed, and all between unusable and back again', () => {
    const take = walked(60, [mark(0, 10), mark(60, 70), link(12, 'broke up'), link(35, 'unusable'), link(49, 'back again')]);
    expect(windowsOf(take, [3]).map(([, brokeUp]) => brokeUp)).toEqual([true, true, false, true, true, false]);
    expect(windowsOf({ ...take, walk: take.walk.filter((each) => each.what !== 'link' || each.state !== 'back again') }).map(([, brokeUp]) => brokeUp)).toEqual([
      false,
      true,
      false,
      true,
      true,
      true,
    ]);
  });

  it('of a leg does not count for the next', () => {
    const take = walked(20, [mark(0, 10), leg(0, 'turned', 'out'), link(9.9, 'broke up'), leg(10, 'facing', 'back'), mark(20, 10)]);
    expect(windowsOf(take)).toEqual([
      [10, true, 'turned', 'out'],
      [10, false, 'facing', 'back'],
    ]);
  });

  it('without a known distance, or of a spoiled take, there are none', () => {
    expect(windowsOf(walked(20, [link(3, 'broke up')]))).toEqual([]);
    expect(windowsOf(walked(20, [mark(0, 10), mark(20, 30)], { flags: [{ id: newId(), flag: 'spoiled', atMs: 0, setupIds: [] }] }))).toEqual([]);
  });
});

describe('where the talker was', () => {
  const points = Array.from({ length: 31 }, (_, second) => ({ atMs: second * 1000, accuracyM: null, ...placeFrom(HOME, 0, 3 * second) }));
  it('is told from the track where no two marks were passed, and pegs win over positions', () => {
    const track = walkTrack(points, [entry(0, { what: 'receiver', ...HOME })]);
    expect(track?.receiverSaid).toBe(true);
    expect(distanceAt(10_500, [], track)).toBeCloseTo(31.5, 2);
    expect(distanceAt(10_500, [mark(0, 0), mark(21, 42)], track)).toBeCloseTo(21, 5);
    expect(distanceAt(100_000, [], track)).toBeNull();
    // Before the first mark and after the last the track goes on; the mark itself says something for a little while.
    expect(distanceAt(25_000, [mark(0, 0), mark(21, 42)], track)).toBeCloseTo(75, 1);
    expect(distanceAt(30_000, [mark(0, 0), mark(21, 42)], null)).toBe(42);
    expect(distanceAt(100_000, [mark(0, 7)], track)).toBeNull();
  });

  it('without a receiver it counts from where the track begins, and says so', () => {
    const track = walkTrack(points.slice(5), []);
    expect(track).toMatchObject({ receiverSaid: false });
    expect(track?.points.at(-1)?.distanceM).toBeCloseTo(75, 1);
    expect(walkTrack([], [])).toBeNull();
  });

  it('is drawn north up and to scale, with every press at its place', () => {
    const map = walkMap(walkTrack(points, [])!, [mark(10, 30), entry(11, { what: 'receiver', ...HOME })]);
    expect(map.eastM - map.westM).toBeCloseTo(map.northM - map.southM, 6);
    expect(map.entries).toHaveLength(1);
    expect(map.entries[0]).toMatchObject({ northM: expect.closeTo(30, 1), eastM: expect.closeTo(0, 1) });
    expect(map.scaleM).toBe(20);
  });

  it.each([
    [null, 'out', 10],
    [20, 'out', 40],
    [80, 'out', null],
    [null, 'back', 80],
    [45, 'back', 40],
    [10, 'back', null],
  ] as const)('from %s on the way %s the next mark is %s', (distanceM, heading, next) =>
    expect(nextMarkM([10, 20, 40, 80, 20], { side: 'facing', heading, distanceM })).toBe(next),
  );
});

describe('what a spot where links broke up speaks for', () => {
  const windows = (broken: (metres: number, heading: 'out' | 'back') => boolean): WalkWindow[] =>
    (['out', 'back'] as const).flatMap((heading) =>
      Array.from({ length: 30 }, (_, step) => ({ atMs: 0, side: 'facing' as const, heading, distanceM: 4 * (step + 1), brokeUp: broken(4 * (step + 1), heading) })),
    );
  const nearLine = (metres: number) => metres >= 56 && metres <= 72;

  it.each<[string, { candidateId: string; windows: WalkWindow[] }[], string[]]>([
    [
      'a line across the way takes all of them, both ways',
      [
        { candidateId: 'a', windows: windows(nearLine) },
        { candidateId: 'b', windows: windows(nearLine) },
      ],
      ['the place'],
    ],
    [
      'one that fails where the others hold',
      [
        { candidateId: 'a', windows: windows(nearLine) },
        { candidateId: 'b', windows: windows(() => false) },
      ],
      ['the device'],
    ],
    [
      'a single break-up',
      [
        { candidateId: 'a', windows: windows((metres, heading) => metres === 60 && heading === 'out') },
        { candidateId: 'b', windows: windows(() => false) },
      ],
      ['neither yet'],
    ],
    [
      'a range that ends speaks for no place',
      [
        { candidateId: 'a', windows: windows((metres) => metres > 80) },
        { candidateId: 'b', windows: windows((metres) => metres > 80) },
      ],
      ['neither yet'],
    ],
    ['nothing', [{ candidateId: 'a', windows: windows(() => false) }], []],
  ])('%s', (_case, from, expected) => expect(troubles(from).map(({ speaksFor }) => speaksFor)).toEqual(expected));

  it('wrongly blames in few of many walks where chance alone is at work', () => {
    let blamed = 0;
    for (let seed = 0; seed < 400; seed++) {
      const random = randomSource(seed);
      const chance = () => windows(() => random.uniform() < 0.06);
      const told = troubles([
        { candidateId: 'a', windows: chance() },
        { candidateId: 'b', windows: chance() },
      ]);
      if (told.some(({ speaksFor }) => speaksFor !== 'neither yet')) blamed++;
    }
    expect(blamed / 400).toBeLessThan(0.12);
  });
});

describe('radio levels along a walk', () => {
  it('are those of the stronger aerial of the channel that is tied to a candidate', () => {
    const [id, candidateId] = [newId(), newId()];
    const device = deviceSchema.parse({ id, trialId: newId(), version: 1, binnedAtMs: null, name: 'Rx', way: { by: 'posted' }, ties: [{ group: '1', candidateId }] }) as Device;
    const channel = (name: string, group: string) => ({ id: name, quantity: 'radioLevelDbm' as const, name, group });
    const sum = { least: 0, mean: 0, most: 0, last: 0, count: 1 };
    const readings = [
      {
        deviceId: id,
        name: 'Rx',
        channels: [
          { channel: channel('a', '1'), sum, series: [[1000, -70, -60, -50]] as [number, number, number, number][] },
          { channel: channel('b', '1'), sum, series: [[1000, -70, -55, -50]] as [number, number, number, number][] },
          { channel: channel('c', '2'), sum, series: [[1000, -70, -40, -50]] as [number, number, number, number][] },
        ],
      },
    ];
    const levels = levelsAlongWalk(readings, [device], [mark(0, 10), mark(2, 20), leg(0, 'turned', 'out')], null);
    expect([...levels]).toEqual([[candidateId, [{ atMs: 1000, distanceM: 15, levelDbm: -55, side: 'turned', heading: 'out' }]]]);
  });
});

/** Ten seconds of a fading link at a distance: whether any stretch of it stays under the threshold longer than a receiver bridges. */
function breaksUp(distanceM: number, random: RandomSource): boolean {
  const field = fieldDb(10, 2.4, random);
  const marginDb = 64 - 20 * Math.log10(distanceM) - 10 * Math.log10(1 + (distanceM / 60) ** 2);
  let under = 0;
  for (const level of field) {
    under = level + marginDb < 0 ? under + 1 : 0;
    if (under >= 8) return true;
  }
  return false;
}

describe('the range of simulated walks on a fading link', () => {
  it('holds the distance at which a tenth of all ten seconds break up, as often as it claims', () => {
    // The truth by brute force: many spells of ten seconds at each distance.
    const random = randomSource(5);
    const grid = Array.from({ length: 13 }, (_, step) => 30 * 2 ** (step / 4));
    const shares = grid.map((distanceM) => Array.from({ length: 80 }, () => breaksUp(distanceM, random)).filter(Boolean).length / 80);
    const above = shares.findIndex((share) => share > RELIABLE_CHANCE);
    expect(above).toBeGreaterThan(0);
    const truth = [grid[above - 1]! / 1.1, grid[above]! * 1.1] as const;
    let holds = 0;
    const walks = 60;
    for (let walk = 0; walk < walks; walk++) {
      const distances = Array.from({ length: 40 }, (_, step) => 4 + 8 * step);
      const range = rangeOf(distances.map((distanceM) => ({ distanceM, brokeUp: breaksUp(distanceM, random) })))!;
      if ((range.lowM ?? 0) <= truth[1] && (range.highM ?? Number.POSITIVE_INFINITY) >= truth[0]) holds++;
    }
    expect(holds / walks).toBeGreaterThanOrEqual(0.9);
  });

  it('a walk of the stand-ins goes out turned and back facing, and breaks up more when turned', () => {
    const scene = walkScene({ seed: 12 });
    const moments = Array.from({ length: Math.floor(scene.lengthS) }, (_, second) => scene.at(second));
    const muted = (side: 'facing' | 'turned') => moments.filter((moment) => moment.side === side && moment.muted[1]).length;
    expect(muted('turned')).toBeGreaterThan(muted('facing'));
    expect(Math.max(...moments.map(({ distanceM }) => distanceM))).toBeCloseTo(120, 0);
    expect(scene.at(scene.lengthS + 5)).toEqual(scene.at(5));
  });
});
