import { conditionKey, setupKey } from '@marvet/core/domain/factor';
import { DEFAULT_CHANGE_TIMES, type PlanDraft } from '@marvet/core/domain/plan';
import type { Take } from '@marvet/core/domain/take';
import type { BundledTrial } from '@marvet/core/formats/bundle';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import type { PlannedTake } from '@marvet/core/plan/gather';
import { matrixSetups } from '@marvet/core/plan/matrix';
import { randomSource, seedOf } from '@marvet/core/simulate/random';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';
import { CANDIDATES, CHAINS, chainId } from './kit.ts';
import { PLACES, SCRIPTS, SCRIPTS_BY_KEY, STATIONS, scriptId, stationId } from './places.ts';

/** The file of a take, named as a recorder would that knows the slate. */
export const fileNameOf = (take: Pick<Take, 'slate' | 'pass'>) => `SALTREACH_S${String(take.slate).padStart(3, '0')}_T${String(take.pass).padStart(2, '0')}.wav`;

const SHORT_REACH = new Set(CANDIDATES.filter((each) => each.heard.radio && each.heard.radio.reliableToM < 40).map((each) => chainId(each.letters)));
/** Minutes that the day was planned for. */
export const PLAN_MIN = 240;
export const DAY_MS = Date.UTC(2026, 4, 12, 8, 20, 0);
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

export const PLAN = plan();

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
    incidents: [],
    tried: [],
    walk: [],
    meters: {},
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

/** A crunch that was heard once under the power line, and tried again whenever the talker was so far out. */
function withIncident(all: BundledTrial['takes']): BundledTrial['takes'] {
  const far = all.filter(({ condition }) => condition.distance === '40');
  const [first, ...later] = far;
  const bittern = chainId('LB');
  const incidentId = demoId('incident', 'crunch');
  return all.map((take) => {
    const own = take.setups.find(({ candidateId }) => candidateId === bittern);
    const atMs = (take.startedAtMs ?? 0) + 6000;
    if (!own) return take;
    if (take === first)
      return { ...take, incidents: [{ id: incidentId, heard: 'Crunch at the start of phrases', wasOn: 'limiter off, under the power line', setupIds: [own.id], atMs }] };
    if (!later.includes(take)) return take;
    const others = take.setups.filter((setup) => setup !== own && CANDIDATES.some(({ letters, heard }) => chainId(letters) === setup.candidateId && heard.radio));
    return { ...take, tried: [{ id: demoId('tried', take.slate, take.pass), incidentId, cameSetupIds: [own.id], stayedSetupIds: others.map(({ id }) => id), atMs }] };
  });
}

export const TAKES = withIncident(takes());
/** Identity of what a candidate's channel of a take is. */
export const recordingId = (take: Pick<Take, 'slate' | 'pass'>, candidateId: string) => demoId('recording', take.slate, take.pass, candidateId);
const lettersOf = (candidateId: string) => CHAINS.find((chain) => chain.id === candidateId)!.tape.letters;

/** Files as they came from the recorder: a channel for each candidate, found by the slate in the name. */
export const FILES: BundledTrial['files'] = TAKES.map((take) => ({
  id: demoId('file', take.slate, take.pass),
  name: fileNameOf(take),
  slateSpoken: null,
  recordings: take.setups.map((setup, channel) => ({
    id: recordingId(take, setup.candidateId),
    channels: [channel],
    startS: null,
    endS: null,
    cutBy: null,
    logStartS: null,
    trackName: lettersOf(setup.candidateId),
    takeId: take.id,
    setupId: setup.id,
    matchedBy: 'file name' as const,
    roomTone: null,
    performance: null,
    corrections: [],
  })),
}));
