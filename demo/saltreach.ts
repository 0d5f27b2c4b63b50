import { preflightChecks } from '@marvet/core/chain/preflight';
import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { conditionKey, setupKey } from '@marvet/core/domain/factor';
import { DEFAULT_CHANGE_TIMES, type PlanDraft } from '@marvet/core/domain/plan';
import type { Take } from '@marvet/core/domain/take';
import { type BundledTrial, bundledTrial } from '@marvet/core/formats/bundle';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import type { PlannedTake } from '@marvet/core/plan/gather';
import { matrixSetups } from '@marvet/core/plan/matrix';
import { randomSource, seedOf } from '@marvet/core/simulate/random';
import type { z } from 'zod';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';
import { CANDIDATES, CHAINS, chainId } from './kit.ts';
import { PLACES, SCRIPTS, SCRIPTS_BY_KEY, STATIONS, scriptId, stationId } from './places.ts';

/** The file of a take, named as a recorder would that knows the slate. */
export const fileNameOf = (take: Pick<Take, 'slate' | 'pass'>) => `SALTREACH_S${String(take.slate).padStart(3, '0')}_T${String(take.pass).padStart(2, '0')}.wav`;

const SHORT_REACH = new Set(CANDIDATES.filter((each) => each.heard.radio && each.heard.radio.reliableToM < 40).map((each) => chainId(each.letters)));
const TRIAL_ID = demoId('trial', 'saltreach');
/** Minutes that the day was planned for. */
const PLAN_MIN = 240;
const DAY_MS = Date.UTC(2026, 4, 12, 8, 20, 0);
/** The evening after, when it was heard. */
const HEARD_MS = DAY_MS + 86_400_000;
const CONTROLS = [
  { name: 'Clothes', value: 'wool jumper over cotton shirt' },
  { name: 'Effort', value: 'normal, to someone at 3 m' },
];

/** Cells that are recorded: station, windscreens, distances, scripts. All others of the full matrix are left out. */
const RECORDED: [station: string, screens: string[], distances: string[], scripts: string[]][] = [
  ['slipway', ['bare', 'fur'], ['1', '10', '40'], ['neutralLow']],
  ['slipway', ['bare', 'fur'], ['1'], ['plosives', 'sibilants']],
  ['slipway', ['fur'], ['1'], ['roomTone']],
  ['slipway', ['fur'], ['40'], ['counting']],
  ['loft', ['bare'], ['1', '10'], ['neutralLow', 'neutralHigh']],
  ['loft', ['bare'], ['1'], ['plosives', 'roomTone']],
  ['deck', ['fur'], ['1', '10', '40'], ['neutralLow']],
  ['deck', ['bare'], ['1'], ['neutralLow']],
  ['deck', ['fur'], ['1'], ['sibilants', 'roomTone']],
  ['deck', ['fur'], ['40'], ['counting']],
  ['reed', ['fur'], ['1', '10', '40'], ['neutralLow', 'neutralHigh']],
  ['reed', ['fur'], ['1'], ['roomTone']],
  ['reed', ['fur'], ['40'], ['counting']],
  ['wheelhouse', ['bare'], ['1'], ['neutralLow', 'neutralHigh', 'sibilants', 'roomTone']],
];

function plan() {
  const base = alignPlan(emptyPlan(), { candidate: CHAINS, station: STATIONS, script: SCRIPTS });
  const factors = base.factors.map((factor) => ({
    ...factor,
    levels: factor.levels.map((level) => ({ ...level, ticked: level.id !== 'foam' })),
  }));
  const recorded = new Set(
    RECORDED.flatMap(([station, screens, distances, scripts]) =>
      screens.flatMap((windscreen) =>
        distances.flatMap((distance) => scripts.map((script) => conditionKey({ station: stationId(station), windscreen, distance, script: scriptId(script) }))),
      ),
    ),
  );
  const boom = chainId('BM');
  const rules: PlanDraft['rules'] = [
    {
      id: demoId('rule', 'fur'),
      kind: 'windscreen',
      levelIds: ['fur'],
      withKind: 'station',
      withLevelIds: Object.entries(PLACES).flatMap(([key, { station }]) => (station.indoors ? [stationId(key)] : [])),
    },
  ];
  const leftOut = matrixSetups(factors, { rules })
    .filter((setup) => !recorded.has(conditionKey(setup)) || (setup.candidate === boom && setup.distance !== '1'))
    .map(setupKey);
  return {
    ...base,
    factors,
    rules,
    leftOut,
    controls: CONTROLS,
    changeTimesS: { ...DEFAULT_CHANGE_TIMES, station: 1080 },
    // Fur comes off with one pull, and the ferry is slow from the slipway but passes it on its way back.
    changeExceptions: [
      { kind: 'windscreen' as const, fromId: 'fur', toId: 'bare', seconds: 30 },
      { kind: 'station' as const, fromId: stationId('deck'), toId: stationId('wheelhouse'), seconds: 240 },
      { kind: 'station' as const, fromId: stationId('wheelhouse'), toId: stationId('deck'), seconds: 240 },
    ],
    togetherLimits: { tracks: 8, onChest: 4, apart: [] },
    day: { startsAtMs: DAY_MS, endsAtMs: DAY_MS + 4 * 3_600_000, breaks: [{ startsAtMs: DAY_MS + 2 * 3_600_000, lengthMin: 20 }], batteryChangeMin: 5 },
  };
}

const PLAN = plan();

/** Takes as the day went: one was spoiled by a passing launch and done again. */
function takes(): BundledTrial['takes'] {
  const ordered = buildPlan(PLAN, { chains: CHAINS, items: ITEMS, stations: STATIONS }).takes;
  let clockMs = DAY_MS;
  let station = '';
  const done = ordered.flatMap((planned, index) => {
    if (station && station !== planned.condition.station) clockMs += 18 * 60_000;
    station = planned.condition.station;
    const first = doneTake(planned, index, 1, clockMs);
    clockMs = (first.stoppedAtMs ?? clockMs) + 40_000;
    if (index !== 7) return [first];
    const again = doneTake(planned, index, 2, clockMs);
    clockMs = (again.stoppedAtMs ?? clockMs) + 40_000;
    return [
      {
        ...first,
        note: 'A launch passed close by.',
        flags: [...first.flags, { id: demoId('mark', 'launch'), flag: 'spoiled' as const, atMs: first.startedAtMs ?? 0, setupIds: [] }],
      },
      again,
    ];
  });
  return done;
}

function doneTake(planned: PlannedTake, index: number, pass: number, startedAtMs: number): BundledTrial['takes'][number] {
  const random = randomSource(seedOf('log', index, pass));
  const key = Object.keys(PLACES).find((each) => stationId(each) === planned.condition.station) as string;
  const script = Object.entries(SCRIPTS_BY_KEY).find(([each]) => scriptId(each) === planned.condition.script)?.[1];
  const { heard } = PLACES[key]!;
  const windMs = heard.windMs > 0 ? Math.round((heard.windMs + 0.4 * random.normal()) * 10) / 10 : 0;
  const level = 10 * Math.log10(10 ** (heard.noiseDba / 10) + 10 ** ((heard.hum?.levelDba ?? -20) / 10));
  const flags: Take['flags'] = [];
  const mark = (flag: Take['flags'][number]['flag'], atMs: number, setupIds: string[] = []) => flags.push({ id: demoId('mark', index, pass, flags.length), flag, atMs, setupIds });
  const setups = planned.setups.map((setup) => ({ ...setup, id: demoId('setup', index, pass, setup.candidateId) }));
  if (key === 'slipway' && planned.condition.windscreen === 'bare') mark('wind', startedAtMs + 3000);
  // The two sets with the shortest reach drop out, as the one at the cart hears and says.
  if (planned.condition.distance === '40')
    mark(
      'break-up',
      startedAtMs + 5000,
      setups.filter((setup) => SHORT_REACH.has(setup.candidateId)).map((setup) => setup.id),
    );
  return {
    id: demoId('take', index, pass),
    slate: index + 1,
    pass,
    position: index,
    condition: planned.condition,
    setups,
    status: 'done',
    startedAtMs,
    stoppedAtMs: startedAtMs + (script?.script.lengthS ?? 10) * 1000,
    flags,
    note: '',
    gains: Object.fromEntries(
      setups.map((setup) => {
        const { heard: how, gainDb } = CANDIDATES.find((each) => chainId(each.letters) === setup.candidateId)!;
        return [setup.id, { [how.radio ? 'transmitter' : 'recorder']: gainDb }];
      }),
    ),
    windMs,
    noiseDba: Math.round(level + 0.5 * random.normal()),
    controls: CONTROLS,
  };
}

const TAKES = takes();
const recordingId = (take: Pick<Take, 'slate' | 'pass'>, candidateId: string) => demoId('recording', take.slate, take.pass, candidateId);
const lettersOf = (candidateId: string) => CHAINS.find((chain) => chain.id === candidateId)!.tape.letters;

/** Files as they came from the recorder: a channel for each candidate, found by the slate in the name. */
const FILES: BundledTrial['files'] = TAKES.map((take) => ({
  id: demoId('file', take.slate, take.pass),
  name: fileNameOf(take),
  slateSpoken: null,
  recordings: take.setups.map((setup, channel) => ({
    id: recordingId(take, setup.candidateId),
    channels: [channel],
    startS: null,
    endS: null,
    trackName: lettersOf(setup.candidateId),
    takeId: take.id,
    setupId: setup.id,
    matchedBy: 'file name' as const,
    roomTone: null,
    performance: null,
  })),
}));

const criterion = (key: string, position: number, rest: z.input<typeof criterionDraftSchema>): BundledTrial['criteria'][number] => ({
  ...criterionDraftSchema.parse({ ...rest, position }),
  id: demoId('criterion', key),
});

const CRITERIA: BundledTrial['criteria'] = [
  criterion('snr', 0, {
    name: 'Voice over noise',
    kind: 'measured',
    measureId: 'noise.snrDb',
    weight: 30,
    best: 36,
    worst: 4,
    remark: 'On the deck the words must stay above the engine.',
  }),
  criterion('floor', 1, { name: 'Practical noise floor, A', kind: 'measured', measureId: 'noise.practicalFloorDbfsA', weight: 10, best: -70, worst: -40 }),
  criterion('presence', 2, { name: 'Presence under wool', kind: 'measured', measureId: 'spectrum.groups.presenceDb', weight: 10, best: -10, worst: -24 }),
  criterion('words', 3, { name: 'Words are clear', kind: 'listened', weight: 25, best: 10, worst: 0, worstWords: 'had to guess', bestWords: 'every word at once' }),
  criterion('natural', 4, { name: 'Sounds like him', kind: 'listened', weight: 15, best: 10, worst: 0, worstWords: 'a telephone', bestWords: 'could be the boom' }),
  criterion('hidden', 5, { name: 'Hides under wool', kind: 'inspected', weight: 5, best: 10, worst: 0, worstWords: 'shows in every frame', bestWords: 'nobody finds it' }),
  criterion('locks', 6, {
    name: 'Connector holds',
    kind: 'inspected',
    weight: 5,
    best: 10,
    worst: 0,
    dealbreaker: { side: 'below', limit: 3 },
    remark: 'It must lock: he jumps ashore.',
  }),
];

/** Criteria compared two by two, in the steps that the page offers; close to the weights, not quite free of contradiction. */
const STEPS = [1 / 7, 1 / 5, 1 / 3, 1 / 2, 1, 2, 3, 5, 7];
const COMPARISONS = CRITERIA.flatMap((first, index) =>
  CRITERIA.slice(index + 1).map((second) => ({
    firstId: first.id,
    secondId: second.id,
    ratio: STEPS.reduce((best, step) => (Math.abs(Math.log((step * second.weight) / first.weight)) < Math.abs(Math.log((best * second.weight) / first.weight)) ? step : best), 1),
  })),
);

const MARKS: [string, hidden: number, locks: number, remark: string][] = [
  ['FT', 5, 2, 'Plain jack, came out twice.'],
  ['QO', 8, 9, ''],
  ['LB', 9, 9, ''],
  ['WH', 7, 8, ''],
  ['BM', 10, 10, 'Never seen.'],
];

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

function round(): BundledTrial['rounds'][number] {
  const take = TAKES.find(
    (each) =>
      each.condition.station === stationId('slipway') && each.condition.windscreen === 'fur' && each.condition.distance === '1' && each.condition.script === scriptId('neutralLow'),
  )!;
  const [words, natural] = [demoId('criterion', 'words'), demoId('criterion', 'natural')];
  return {
    id: demoId('round', 1),
    title: 'Slipway, 1 m, fur',
    criterionIds: [words, natural],
    targetLufs: -23,
    ceilingDbtp: -1,
    sample: true,
    createdAtMs: HEARD_MS,
    recordingIds: CANDIDATES.map((each) => recordingId(take, chainId(each.letters))),
    listeners: Object.entries(SCORES).map(([name, scores]) => ({
      id: demoId('listener', name),
      name: `${name} (sample)`,
      listenedOn: name === 'Orla' ? 'closed headphones' : 'studio loudspeakers',
      sample: true,
      createdAtMs: HEARD_MS,
      finishedAtMs: HEARD_MS,
      order: ORDERS[name]!,
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

/** The demo trial, complete to its verdict. */
export const SALTREACH = bundledTrial({
  id: TRIAL_ID,
  name: 'Saltreach',
  question: "Which lavalier chain keeps the ferryman's words above the water, hidden under wool?",
  use: 'Drama on a chain ferry. One lead, wool jumper, microphone not to be seen, up to 40 m from the cart.',
  place: 'Saltreach: slipway, net loft, ferry deck, reed bank, wheelhouse',
  createdAtMs: DAY_MS - 5 * 86_400_000,
  expectations: [
    { person: 'Mixer', candidateId: chainId('LB'), reason: 'Everyone asks for it, and it costs the most.', sealedAtMs: DAY_MS - 4 * 86_400_000 },
    { person: 'Assistant', candidateId: chainId('QO'), reason: 'It held on the last ferry.', sealedAtMs: DAY_MS - 3 * 86_400_000 },
  ],
  preflight: preflightChecks(CHAINS, new Map(ITEMS.map((item) => [item.id, item])), PLAN_MIN)
    .filter((check) => !check.text.includes('spare'))
    .map((check, index) => ({ key: check.key, person: index % 2 ? 'Assistant' : 'Mixer', atMs: DAY_MS - 14 * 3_600_000 + index * 40_000 })),
  roles: [
    { id: demoId('role', 'ferrier'), name: 'Ferrier', count: 1, needs: 'every word above water and engine, hidden under wool', robustness: 'rough' },
    { id: demoId('role', 'netmaker'), name: 'Netmaker', count: 1, needs: 'quiet scenes indoors', robustness: 'normal' },
    { id: demoId('role', 'passengers'), name: 'Passengers', count: 4, needs: 'a line each, out of the box', robustness: 'normal' },
  ],
  budget: { amount: 6000, currency: 'EUR' },
  comparisons: COMPARISONS,
  sample: true,
  slatesSpoken: false,
  verdictOpenedAtMs: DAY_MS + 2 * 86_400_000,
  criteria: CRITERIA,
  chains: CHAINS,
  stations: STATIONS,
  scripts: SCRIPTS,
  plan: { ...PLAN, committedAtMs: DAY_MS - 86_400_000 },
  marks: MARKS.flatMap(([letters, hidden, locks, remark]) => [
    { chainId: chainId(letters), criterionId: demoId('criterion', 'hidden'), points: hidden, remark: '' },
    { chainId: chainId(letters), criterionId: demoId('criterion', 'locks'), points: locks, remark },
  ]),
  takes: TAKES,
  files: FILES,
  rounds: [round()],
});
