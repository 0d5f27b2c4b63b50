import { NO_SETTINGS } from '@marvet/core/domain/chain';
import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { acousticsSchema } from '@marvet/core/domain/station';
import { untouchedTake } from '@marvet/core/domain/take';
import { type BundledTrial, bundledTrial } from '@marvet/core/formats/bundle';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';
import { PLACES } from './places.ts';

const TRIAL_ID = demoId('trial', 'landing');
const own = (...words: (string | number)[]) => demoId('landing', ...words);
const DAY_MS = Date.UTC(2026, 4, 21, 9, 12, 30);
const DISTANCE_M = '1';

const CHAINS: BundledTrial['chains'] = (
  [
    ['BE', 'Belt recorder', ['qo-mic', 'belt'], 'breastbone, under the jumper'],
    ['BM', 'Brackmoor boom', ['bm-mic', 'bm-pole', 'recorder'], 'from above, out of frame'],
    ['CM', 'Camera, its own pair', ['cm-mic'], 'on the camera'],
  ] as [letters: string, name: string, items: string[], placement: string][]
).map(([letters, name, items, placement], position) => ({
  id: own('chain', letters),
  name,
  links: items.map((key) => ({ itemId: demoId('item', key), settings: NO_SETTINGS })),
  rig: { placement, onSkin: false },
  split: null,
  candidate: true,
  tape: { kind: position, letters },
  remark: '',
  position,
}));

const STATIONS: BundledTrial['stations'] = [
  { ...PLACES.reed!.station, name: 'ferry landing', hazards: ['water'], acoustics: acousticsSchema.parse({ noiseDba: 38, windMs: 1.5 }), id: own('station', 1), position: 0 },
];

/** What is said in each take, a script and a dry clip; when it was started, and how long it ran, in seconds. */
export const SPOKEN: readonly { clip: string; name: string; atS: number; lengthS: number }[] = [
  { clip: 'ferrier-neutral', name: 'Neutral', atS: 0, lengthS: 11 },
  { clip: 'ferrier-counting', name: 'Counting', atS: 29, lengthS: 14 },
  { clip: 'ferrier-plosives', name: 'Plosives', atS: 66, lengthS: 12 },
  { clip: 'ferrier-sibilants', name: 'Sibilants', atS: 92, lengthS: 12 },
];
const SCRIPTS: BundledTrial['scripts'] = SPOKEN.map(({ name, lengthS }, position) => ({
  id: own('script', position + 1),
  name,
  text: 'As on the card.',
  purpose: 'What the camera has in common with the others.',
  talker: 'Ferrier',
  lengthS,
  position,
}));

function plan() {
  const base = alignPlan(emptyPlan(), { candidate: CHAINS, station: STATIONS, script: SCRIPTS });
  const factors = base.factors.map((factor) => {
    if (factor.kind === 'distance') return { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === DISTANCE_M })) };
    return factor.kind === 'windscreen' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === 'fur' })) } : factor;
  });
  return { ...base, factors, controls: [{ name: 'Talker', value: 'Ferrier' }] };
}
const PLAN = plan();

const TAKES = buildPlan(PLAN, { chains: CHAINS, items: ITEMS, stations: STATIONS }).takes.map(({ condition, setups }, position) => {
  const { atS, lengthS } = SPOKEN[position]!;
  const startedAtMs = DAY_MS + 1000 * atS;
  const named = setups.map(({ candidateId, levels }) => ({ id: own('setup', position, candidateId), candidateId, levels }));
  return {
    ...untouchedTake({ id: own('take', position + 1), trialId: TRIAL_ID, slate: position + 1, position, condition, setups: named }),
    status: 'done' as const,
    startedAtMs,
    stoppedAtMs: startedAtMs + 1000 * lengthS,
    windMs: 1.5,
    controls: PLAN.controls,
  };
});

/** Two recorders that ran on, and a camera that was started for each take: by how much their clocks are ahead, and whose channels they have. */
export const RECORDERS = [
  { name: 'BELT', letters: 'BE', aheadS: 26 * 3600 + 7 * 60 + 12, beforeS: 14 },
  { name: 'MIXER', letters: 'BM', aheadS: -(5 * 3600 + 2 * 60 + 40), beforeS: 11 },
] as const;
export const CAMERA = { name: 'DUNLIN', letters: 'CM', aheadS: 61 * 60 + 8, beforeS: 3, afterS: 4 } as const;
/** How long the two ran on after the last take had been stopped. */
export const AFTER_S = 9;
export const startMsOf = (atS: number, aheadS: number): number => DAY_MS + 1000 * (atS + aheadS);

export const dayFileName = (recorder: (typeof RECORDERS)[number]) => `${recorder.name}_0007.wav`;
export const cameraFileName = (take: number) => `${CAMERA.name}_${101 + take}.MOV`;

const loose = (name: string, channels: number[]) => ({
  id: own('file', name),
  name,
  slateSpoken: null,
  recordings: [{ id: own('recording', name), channels, startS: null, endS: null, trackName: null, takeId: null, setupId: null, matchedBy: null }],
});

const CRITERIA = [
  { name: 'Voice over noise', kind: 'measured', measureId: 'noise.snrDb', weight: 50, best: 40, worst: 6 },
  { name: 'Words are clear', kind: 'measured', measureId: 'intelligibility.sii', weight: 50, best: 0.9, worst: 0.3 },
] as const;

/** A morning whose recordings lie where they were brought in: two recorders that ran on, by clocks of their own, and a camera. */
export const LANDING = bundledTrial({
  id: TRIAL_ID,
  name: 'Ferry landing, as it came in',
  question: 'Does the boom save us the belt recorder at the landing, and is the camera of any use?',
  use: 'Short scenes on the landing, one talker.',
  place: 'Saltreach: ferry landing',
  createdAtMs: DAY_MS - 86_400_000,
  sample: true,
  slatesSpoken: false,
  verdictOpenedAtMs: null,
  expectations: [],
  preflight: [],
  roles: [],
  budget: null,
  comparisons: [],
  criteria: CRITERIA.map((criterion, position) => ({ ...criterionDraftSchema.parse(criterion), id: own('criterion', position + 1), position })),
  chains: CHAINS,
  stations: STATIONS,
  scripts: SCRIPTS,
  plan: { ...PLAN, committedAtMs: DAY_MS - 3_600_000 },
  marks: [],
  takes: TAKES,
  files: [...RECORDERS.map((recorder) => loose(dayFileName(recorder), [0])), ...SPOKEN.map((_, take) => loose(cameraFileName(take), [0, 1]))],
  rounds: [],
});
