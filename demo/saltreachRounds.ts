import type { bundledTrial } from '@marvet/core/formats/bundle';
import { balancedOrders } from '@marvet/core/listen/balancedOrder';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { sameComparisons } from '@marvet/core/listen/paired/sequence';
import { randomSource } from '@marvet/core/simulate/random';
import { demoId } from './ids.ts';
import { CANDIDATES, chainId } from './kit.ts';
import { scriptId, stationId } from './places.ts';
import { DAY_MS, recordingId, TAKES } from './saltreachDay.ts';

type Moments = NonNullable<Parameters<typeof bundledTrial>[0]['moments']>;
type Round = Parameters<typeof bundledTrial>[0]['rounds'][number];

/** The evening after, when it was heard. */
const HEARD_MS = DAY_MS + 86_400_000;

/** Scores of the two sample listeners, by place in the round: words are clear, sounds like him, and why. */
const SCORES: Record<string, [number, number, string][]> = {
  Orla: [
    [5, 4, 'Dull, and the noise comes up.'],
    [9, 8, 'Open, a little chest.'],
    [6, 5, 'Muffled by the wool.'],
    [8, 7, ''],
    [7, 9, 'The most natural, more water.'],
  ],
  Tam: [
    [4, 5, ''],
    [8, 7, ''],
    [5, 6, 'Lost the ends of words.'],
    [7, 7, 'Slightly boxy.'],
    [6, 9, 'Room and river behind him.'],
  ],
};
const ORDERS: Record<string, number[]> = { Orla: [2, 4, 0, 3, 1], Tam: [1, 3, 4, 0, 2] };

/** What each took the clips for, by letter: the boom is known by its room, most others are not. */
const GUESSES: Record<string, Record<string, string>> = {
  Orla: { A: chainId('WH'), B: chainId('BM'), C: chainId('FT'), D: chainId('QO'), E: chainId('LB') },
  Tam: { A: chainId('LB'), B: chainId('WH'), C: chainId('BM'), D: chainId('QO'), E: chainId('FT') },
};

const LISTENED_ON: Record<string, string> = { Orla: 'closed headphones', Tam: 'studio loudspeakers' };

const heardTake = () =>
  TAKES.find(
    (each) =>
      each.condition.station === stationId('slipway') && each.condition.windscreen === 'fur' && each.condition.distance === '1' && each.condition.script === scriptId('neutralLow'),
  )!;

/** The round in which every candidate got points. */
export function scored(): Round {
  const take = heardTake();
  const [words, natural] = [demoId('criterion', 'words'), demoId('criterion', 'natural')];
  return {
    id: demoId('round', 1),
    title: 'Slipway, 1 m, fur',
    kind: 'scores',
    comparisons: null,
    checks: [],
    checkOf: [],
    opens: 'done',
    closedAtMs: null,
    criterionIds: [words, natural],
    targetLufs: -23,
    ceilingDbtp: -1,
    sample: true,
    createdAtMs: HEARD_MS,
    recordingIds: CANDIDATES.map((each) => recordingId(take, chainId(each.letters))),
    listeners: Object.entries(SCORES).map(([name, scores]) => ({
      id: demoId('listener', name),
      name: `${name} (sample)`,
      listenedOn: LISTENED_ON[name]!,
      sample: true,
      createdAtMs: HEARD_MS,
      finishedAtMs: HEARD_MS,
      order: ORDERS[name]!,
      comparisons: null,
      closedAtMs: HEARD_MS,
      guess: GUESSES[name]!,
      choices: [],
      ratings: scores.flatMap(([clear, like, reason], place) => {
        const letter = BLIND_LETTERS[ORDERS[name]!.indexOf(place)]!;
        return [
          { letter, criterionId: words, points: clear, reason },
          { letter, criterionId: natural, points: like, reason: '' },
        ];
      }),
    })),
  };
}

/** Clips put in order on how natural they sound, by place in the round: the best first, equal ones together. */
const NATURAL: Record<string, number[][]> = {
  Orla: [[4], [1], [3], [2], [0]],
  Tam: [[4], [3], [1], [2, 0]],
  Edda: [[4], [1, 3], [0], [2]],
};

/** The round in which the same clips were put in order, by one listener more. */
export function ranked(): Round {
  const take = heardTake();
  return {
    id: demoId('round', 3),
    title: 'Slipway, 1 m, fur: in order',
    kind: 'ranked',
    criterionIds: [demoId('criterion', 'natural')],
    sample: true,
    createdAtMs: HEARD_MS + 7_200_000,
    recordingIds: CANDIDATES.map((each) => recordingId(take, chainId(each.letters))),
    listeners: Object.entries(NATURAL).map(([name, groups], seat) => {
      const order = balancedOrders(CANDIDATES.length)[2 * seat]!;
      return {
        id: demoId('listener', `${name}-ranked`),
        name: `${name} (sample)`,
        listenedOn: LISTENED_ON[name] ?? 'closed headphones',
        sample: true,
        createdAtMs: HEARD_MS + 7_200_000,
        finishedAtMs: HEARD_MS + 7_800_000,
        order,
        orders: { [demoId('criterion', 'natural')]: groups.map((places) => places.map((place) => BLIND_LETTERS[order.indexOf(place)]!)) },
        ratings: [],
      };
    }),
  };
}

/** What was noted while listening with open eyes. */
export function noted(): Moments {
  const take = heardTake();
  const at = (letters: string, atS: number, note: string, key: number): Moments[number] => ({
    id: demoId('moment', key),
    recordingId: recordingId(take, chainId(letters)),
    atS,
    note,
    createdAtMs: HEARD_MS - 3_600_000,
  });
  return [at('QO', 4.2, 'wool over the grille: the s is gone', 1), at('BM', 6.8, 'river comes up between the words', 2), at('WH', 5.1, '', 3)];
}

/** Right answers of each listener, of as many comparisons. */
const [RIGHT, COMPARED] = [{ Orla: 15, Tam: 10 } as Record<string, number>, 16];
/** Of these two the reasons did not tell which is the better one. */
const ALIKE = ['QO', 'WH'];

/** The round that asks whether two of them are told apart at all. */
export function toldApart(): Round {
  const take = heardTake();
  return {
    id: demoId('round', 2),
    title: 'Osier and Heron, told apart?',
    kind: 'same',
    comparisons: COMPARED,
    checks: [],
    checkOf: [],
    opens: 'done',
    closedAtMs: null,
    criterionIds: [],
    targetLufs: -23,
    ceilingDbtp: -1,
    sample: true,
    createdAtMs: HEARD_MS + 3_600_000,
    recordingIds: ALIKE.map((letters) => recordingId(take, chainId(letters))),
    listeners: Object.entries(RIGHT).map(([name, right], seat) => {
      const comparisons = sameComparisons(COMPARED, randomSource(seat + 41).uniform);
      return {
        id: demoId('listener', `${name}-told`),
        name: `${name} (sample)`,
        listenedOn: LISTENED_ON[name]!,
        sample: true,
        createdAtMs: HEARD_MS + 3_600_000,
        finishedAtMs: HEARD_MS + 4_500_000,
        order: [],
        comparisons,
        closedAtMs: null,
        guess: null,
        ratings: [],
        choices: comparisons.map(([a, , x], number) => {
          const isA = x === a;
          // Wrong ones lie here and there, as they do.
          const wrong = Math.floor(((number + 1) * (COMPARED - right)) / COMPARED) > Math.floor((number * (COMPARED - right)) / COMPARED);
          return { number, atMs: HEARD_MS + 3_600_000 + number * 40_000, picks: [{ criterionId: null, letter: isA !== wrong ? 'A' : 'B' }] };
        }),
      };
    }),
  };
}
