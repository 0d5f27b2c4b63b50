import { NO_SETTINGS } from '@marvet/core/domain/chain';
import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { faultSearchSchema } from '@marvet/core/domain/faultSearch';
import { type BoomSide, frameDraftSchema } from '@marvet/core/domain/frame';
import { acousticsSchema } from '@marvet/core/domain/station';
import { untouchedTake } from '@marvet/core/domain/take';
import { type BundledTrial, bundledTrial } from '@marvet/core/formats/bundle';
import { nearestOut } from '@marvet/core/place/boomPlace';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';

const TRIAL_ID = demoId('trial', 'wheelhouse');
const own = (...words: (string | number)[]) => demoId('wheelhouse', ...words);
const recorderSettings = { ...NO_SETTINGS, gainDb: 38, lowCutHz: 80, limiter: false, sampleRateHz: 48_000, wordLength: '24 bit' as const, power: 'phantom 48 V' as const };

const CHAINS: BundledTrial['chains'] = [
  { letters: 'SP', name: 'Spit, short', items: ['bm-mic', 'bm-pole', 'recorder'] },
  { letters: 'GR', name: 'Groyne, tube', items: ['bm-tube', 'bm-pole', 'recorder'] },
].map(({ letters, name, items }, position) => ({
  id: own('chain', letters),
  name,
  links: items.map((key) => ({ itemId: demoId('item', key), settings: key === 'recorder' ? recorderSettings : NO_SETTINGS })),
  rig: { placement: 'from above', onSkin: false },
  split: null,
  candidate: true,
  tape: { kind: position + 4, letters },
  remark: '',
  position,
}));

const STATIONS: BundledTrial['stations'] = [
  {
    id: own('station', 1),
    name: 'wheelhouse',
    surfaces: 'painted metal, glass',
    noise: 'engine through the floor',
    indoors: true,
    latitudeDeg: 54.5301,
    longitudeDeg: 9.019,
    needsDaylight: false,
    hazards: ['vehicle'],
    acoustics: acousticsSchema.parse({
      sizeM: [3, 2.4, 2.2],
      absorption: [0.12, 0.1, 0.1, 0.1, 0.11, 0.12],
      noiseDba: 34,
      windMs: 0,
      sources: [
        { id: own('source', 1), name: 'engine, through the hatch', kind: 'engine', awayM: 0.9, acrossM: 0.6, heightM: 0, levelDba: 42 },
        { id: own('source', 2), name: 'refrigerator', kind: 'refrigerator', awayM: -0.8, acrossM: 1.1, heightM: 0.5, levelDba: 36 },
      ],
    }),
    remark: '',
    position: 0,
  },
  {
    id: own('station', 2),
    name: 'jetty',
    surfaces: 'planks over water',
    noise: 'open, lapping',
    indoors: false,
    latitudeDeg: 54.5309,
    longitudeDeg: 9.0202,
    needsDaylight: true,
    hazards: ['water', 'overhead line'],
    acoustics: acousticsSchema.parse({
      noiseDba: 42,
      windMs: 4,
      sources: [
        { id: own('source', 3), name: 'lapping at the piles', kind: 'water', awayM: 2, acrossM: -2, heightM: 0, levelDba: 54 },
        { id: own('source', 4), name: 'ferry passing', kind: 'engine', awayM: 22, acrossM: 6, heightM: 1, levelDba: 84, moving: true },
      ],
    }),
    remark: '',
    position: 1,
  },
];

const SCRIPTS: BundledTrial['scripts'] = [
  { id: own('script', 1), name: 'Neutral', text: 'The ferry leaves the landing at a quarter to nine.', purpose: 'Compare the colour.', talker: 'Ferrier', lengthS: 8, position: 0 },
  { id: own('script', 2), name: 'Room tone', text: 'Silence. Nobody moves.', purpose: 'Noise floor.', talker: '', lengthS: 8, position: 1 },
];

type FrameBoomKind = { pressureShare: number; tubeM: number; lengthM: number };
const SHORT: FrameBoomKind = { pressureShare: 0.37, tubeM: 0, lengthM: 0.18 };
const TUBE: FrameBoomKind = { pressureShare: 0.37, tubeM: 0.25, lengthM: 0.4 };

/** A frame with booms as near as it lets them. */
function frame(number: number, given: Record<string, unknown>, sides: [BoomSide, FrameBoomKind][]): BundledTrial['frames'][number] {
  const draft = frameDraftSchema.parse({ ...given, position: number - 1 });
  const booms = sides.flatMap(([from, kind]) => nearestOut(draft, from, { id: own('boom', number, from), aimsAt: 0, screenM: 0.06, massKg: 0.35, ...kind }) ?? []);
  return { ...draft, booms, id: own('frame', number) };
}

const FRAMES: BundledTrial['frames'] = [
  // Close: a boom from above just under the roof, or one from below.
  frame(
    1,
    {
      name: 'Two-hander, close',
      stationId: own('station', 1),
      camera: { sensorWidthMm: 24.9, sensorHeightMm: 18.7, focalMm: 50, aspect: 1.85, heightM: 1.5, tiltDeg: 0 },
      ceilingM: 2.2,
      talkers: [
        { id: own('talker', 1), name: 'Ferrier', awayM: 1.7, acrossM: -0.25, mouthHeightM: 1.52, looksDeg: 25, leanM: 0.12, turnDeg: 40 },
        { id: own('talker', 2), name: 'Netmaker', awayM: 1.9, acrossM: 0.3, mouthHeightM: 1.42, looksDeg: -20, leanM: 0.12, turnDeg: 40 },
      ],
      operator: { awayM: 1.6, acrossM: 1.2, handsM: 1.9, poleM: 2, poleKg: 0.5 },
      marginM: 0.08,
    },
    [
      ['above', SHORT],
      ['below', SHORT],
    ],
  ),
  // On the jetty a line crosses, and the pole would be held over water.
  frame(
    2,
    {
      name: 'Jetty, leaving',
      stationId: own('station', 2),
      camera: { focalMm: 65, aspect: 1.85, heightM: 1.4 },
      talkers: [{ id: own('talker', 3), name: 'Ferrier', awayM: 4.2, acrossM: 0, mouthHeightM: 1.58, looksDeg: 20, leanM: 0.2, turnDeg: 60 }],
      operator: { awayM: 4, acrossM: 2.6, handsM: 1.9, poleM: 4, poleKg: 0.9 },
      dangers: [
        { id: own('danger', 1), kind: 'overhead line', awayM: 6.5, acrossM: 0, heightM: 6.5 },
        { id: own('danger', 2), kind: 'water', awayM: 4.2, acrossM: 1.6, deepM: 4, wideM: 1.4 },
      ],
    },
    [
      ['above', TUBE],
      ['below', SHORT],
    ],
  ),
];

const DAY_MS = Date.UTC(2026, 4, 21, 15, 30, 0);

/** A crackle that came up on the jetty: one test done, two to go. */
const FAULT = faultSearchSchema.parse({
  chainId: own('chain', 'SP'),
  fault: 'Crackle in the first seconds of every take on the jetty.',
  suspects: [
    { id: 'link-0', name: 'Brackmoor Spit short boom microphone', instead: 'the tube microphone' },
    { id: 'power-0', name: 'phantom 48 V', instead: 'a supply of its own' },
    { id: 'link-1', name: 'Cabled pole, 3 m', instead: 'a cable along the pole' },
    { id: 'joint-1', name: 'plug at the foot of the pole', instead: 'the spare plug' },
    { id: 'cable-2', name: 'cable to the recorder', instead: 'the spare cable' },
    { id: 'link-2', name: 'input 1 of Marshgate Eight recorder', instead: 'input 2' },
  ],
  tests: [{ replacedIds: ['link-0', 'power-0', 'link-1'], heard: true }],
  seenShare: 0.75,
});

function plan() {
  const base = alignPlan(emptyPlan(), { candidate: CHAINS, station: STATIONS, script: SCRIPTS });
  const distances = [
    { id: '0.6', label: '0.6 m', value: 0.6, ticked: true },
    { id: '1.2', label: '1.2 m', value: 1.2, ticked: true },
  ];
  const factors = base.factors.map((factor) => (factor.kind === 'distance' ? { ...factor, levels: distances } : factor));
  return {
    ...base,
    factors,
    controls: [{ name: 'Talker', value: 'Ferrier' }],
    order: { counterbalanced: false, blockedBy: 'daylight' as const, pinned: [] },
    day: { startsAtMs: DAY_MS, endsAtMs: DAY_MS + 2 * 3_600_000, breaks: [], batteryChangeMin: 5 },
    faultSearch: FAULT,
  };
}

const PLAN = plan();
const PLANNED = buildPlan(PLAN, { chains: CHAINS, items: ITEMS, stations: STATIONS }).takes;

/** A trial that stops after its plan, so that a new user can run its field part. */
export const WHEELHOUSE = bundledTrial({
  id: TRIAL_ID,
  name: 'Wheelhouse boom',
  question: 'Short boom microphone or tube in a small metal room?',
  use: 'Two-hander in the wheelhouse, camera close, boom from above.',
  place: 'Saltreach: wheelhouse and jetty',
  createdAtMs: Date.UTC(2026, 4, 20, 17, 0, 0),
  expectations: [],
  preflight: [],
  roles: [],
  budget: null,
  comparisons: [],
  sample: true,
  slatesSpoken: false,
  verdictOpenedAtMs: null,
  criteria: [
    criterionDraftSchema.parse({ name: 'Voice over noise', kind: 'measured', measureId: 'noise.snrDb', weight: 2, best: 40, worst: 10 }),
    criterionDraftSchema.parse({ name: 'Room in the sound', kind: 'listened', weight: 3, best: 10, worst: 0, worstWords: 'a tin', bestWords: 'dry' }),
    criterionDraftSchema.parse({ name: 'Fits under the roof', kind: 'inspected', weight: 1, best: 10, worst: 0, worstWords: 'in the shot', bestWords: 'a hand above it' }),
  ].map((criterion, position) => ({ ...criterion, id: own('criterion', position + 1), position })),
  chains: CHAINS,
  stations: STATIONS,
  scripts: SCRIPTS,
  frames: FRAMES,
  plan: { ...PLAN, committedAtMs: Date.UTC(2026, 4, 20, 17, 30, 0) },
  marks: [],
  takes: PLANNED.map(({ condition, setups }, position) =>
    untouchedTake({
      id: own('take', position + 1),
      trialId: TRIAL_ID,
      slate: position + 1,
      position,
      condition,
      setups: setups.map((setup, place) => ({ ...setup, id: own('setup', position + 1, place) })),
    }),
  ),
  files: [],
  rounds: [],
});
