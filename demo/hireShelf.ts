import { NO_SETTINGS } from '@marvet/core/domain/chain';
import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { acousticsSchema } from '@marvet/core/domain/station';
import type { Take } from '@marvet/core/domain/take';
import { type BundledTrial, bundledTrial } from '@marvet/core/formats/bundle';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';
import { PLACES } from './places.ts';

const TRIAL_ID = demoId('trial', 'hire shelf');
const own = (...words: (string | number)[]) => demoId('hire shelf', ...words);
const DAY_MS = Date.UTC(2026, 4, 19, 9, 0, 0);
const SET = { limiter: false, automaticLevel: false, noiseReduction: false, lowCutHz: 0, sampleRateHz: 48_000 };

/** The wire of one lavalier, split: whatever differs is the link. */
const CHAINS: BundledTrial['chains'] = (
  [
    ['CA', 'Belt recorder by cable', ['belt'], { gainDb: 18, wordLength: '24 bit' }, ''],
    ['OX', 'Oxmere analogue', ['ox-tx', 'ox-rx'], { gainDb: 14 }, 'Hums beside the generator.'],
    ['TA', 'Tarrelwick digital', ['ta-tx', 'ta-rx'], { gainDb: 10 }, ''],
    ['HO', 'Hobbleford, noise reduction in', ['ho-tx', 'ho-rx'], { gainDb: 12, noiseReduction: true }, ''],
    ['GA', 'Hobbleford, gate in', ['ho-tx', 'ho-rx'], { gainDb: 12, note: 'gate of the receiver in' }, ''],
    ['AL', 'Hobbleford, automatic level', ['ho-tx', 'ho-rx'], { automaticLevel: true }, ''],
    ['HT', 'Tarrelwick, set too hot', ['ta-tx', 'ta-rx'], { gainDb: 28 }, 'As it came from the shelf.'],
  ] as [letters: string, name: string, items: string[], settings: Partial<typeof NO_SETTINGS>, remark: string][]
).map(([letters, name, items, settings, remark], position) => ({
  id: own('chain', letters),
  name,
  links: ['qo-mic', ...items].map((key, place) => ({ itemId: demoId('item', key), settings: place === 1 ? { ...NO_SETTINGS, ...SET, ...settings } : NO_SETTINGS })),
  rig: { placement: 'breastbone, over the jumper', onSkin: false },
  split: letters === 'CA' ? null : { chainId: own('chain', 'CA'), links: 1 },
  candidate: true,
  tape: { kind: position, letters },
  remark,
  position,
}));

/** Places of the other trial, as they sound there. */
export const HIRE_PLACES = ['loft', 'reed'] as const;
const STATIONS: BundledTrial['stations'] = HIRE_PLACES.map((key, position) => {
  const { station, heard } = PLACES[key]!;
  const { walls, noiseDba, windMs } = heard;
  return { ...station, acoustics: acousticsSchema.parse({ sizeM: walls && [...walls.sizeM], noiseDba, windMs }), id: own('station', key), position };
});

/** Scripts with the dry clips that speak them. */
export const HIRE_SCRIPTS: [key: string, clip: string | null, script: Omit<BundledTrial['scripts'][number], 'id' | 'position'>][] = [
  [
    'sentence',
    'netmaker-neutral',
    { name: 'Neutral', text: 'The ferry leaves the landing at a quarter to nine.', purpose: 'Colour and noise of the links.', talker: 'Netmaker', lengthS: 11 },
  ],
  ['counting', 'netmaker-counting', { name: 'Counting', text: 'One to ten aloud; turn round after five.', purpose: 'Break-ups.', talker: 'Netmaker', lengthS: 10 }],
];
const SCRIPTS: BundledTrial['scripts'] = HIRE_SCRIPTS.map(([key, , script], position) => ({ ...script, id: own('script', key), position }));

function plan() {
  const base = alignPlan(emptyPlan(), { candidate: CHAINS, station: STATIONS, script: SCRIPTS });
  const factors = base.factors.map((factor) => {
    if (factor.kind === 'distance') return { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === '10' || level.id === '40' })) };
    return factor.kind === 'windscreen' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === 'foam' })) } : factor;
  });
  return {
    ...base,
    factors,
    // The loft is not that long, and at ten metres outside nothing breaks up.
    rules: [
      { id: own('rule', 1), kind: 'distance' as const, levelIds: ['40'], withKind: 'station' as const, withLevelIds: [own('station', 'loft')] },
      { id: own('rule', 2), kind: 'distance' as const, levelIds: ['10'], withKind: 'station' as const, withLevelIds: [own('station', 'reed')] },
    ],
    controls: [{ name: 'Talker', value: 'Netmaker' }],
    togetherLimits: { tracks: 8, onChest: 8, apart: [] },
    day: { startsAtMs: DAY_MS, endsAtMs: DAY_MS + 2 * 3_600_000, breaks: [], batteryChangeMin: 5 },
  };
}

const PLAN = plan();

/** The takes of a morning, all seven links at once. */
const TAKES: Take[] = buildPlan(PLAN, { chains: CHAINS, items: ITEMS, stations: STATIONS }).takes.map(({ condition, setups }, position) => {
  const startedAtMs = DAY_MS + position * 150_000;
  return {
    id: own('take', position + 1),
    trialId: TRIAL_ID,
    slate: position + 1,
    pass: 1,
    position,
    condition,
    setups: setups.map((setup, place) => ({ ...setup, id: own('setup', position + 1, place) })),
    status: 'done',
    startedAtMs,
    stoppedAtMs: startedAtMs + 12_000,
    flags: [],
    incidents: [],
    tried: [],
    walk: [],
    meters: {},
    note: '',
    gains: {},
    windMs: PLACES[HIRE_PLACES.find((key) => own('station', key) === condition.station) ?? 'loft']!.heard.windMs,
    noiseDba: null,
    controls: PLAN.controls,
    binnedAtMs: null,
  };
});

export const hireFileName = (take: Pick<Take, 'slate' | 'pass'>) => `HIRE_S${String(take.slate).padStart(3, '0')}_T${String(take.pass).padStart(2, '0')}.wav`;
export const lettersOfHire = (candidateId: string) => CHAINS.find((chain) => chain.id === candidateId)!.tape.letters;
export const hireStation = (take: Pick<Take, 'condition'>) => HIRE_PLACES.find((key) => own('station', key) === take.condition.station)!;
export const hireClip = (take: Pick<Take, 'condition'>) => HIRE_SCRIPTS.find(([key]) => own('script', key) === take.condition.script)![1];

const CRITERIA = [
  { name: 'Break-ups', kind: 'measured', measureId: 'events.dropout.perMinute', weight: 30, best: 0, worst: 10, dealbreaker: { side: 'above', limit: 20 } },
  { name: 'Colour against the cable', kind: 'measured', measureId: 'pair.spectralDistanceDb', weight: 15, best: 0, worst: 6 },
  { name: 'Noise taken off', kind: 'measured', measureId: 'pair.denoise.noiseReductionDb', weight: 10, best: 15, worst: -6 },
  { name: 'Warble left', kind: 'measured', measureId: 'pair.denoise.musicalNoise', weight: 15, best: 0, worst: 1.5 },
  {
    name: 'Noise chopped between words',
    kind: 'measured',
    measureId: 'noise.gatedDb',
    weight: 15,
    best: 0,
    worst: 15,
    aggregation: 'worst',
    dealbreaker: { side: 'above', limit: 10 },
    remark: 'It cannot be laid under another shot.',
  },
  { name: 'Pumping', kind: 'measured', measureId: 'character.pumpingDb', weight: 15, best: 0, worst: 10 },
  { name: 'Overload before the link', kind: 'measured', measureId: 'levels.flattenedShare', weight: 15, best: 0, worst: 0.3 },
] as const;

/** Everything that a link can do to a voice, recorded at once against the same wire by cable. */
export const HIRE_SHELF = bundledTrial({
  id: TRIAL_ID,
  name: 'Hire shelf',
  question: 'Which of the old links on the hire shelf is still good enough for the crowd, and which only with a recorder beside it?',
  use: 'Background talkers with a line each; a belt recorder may run beside the link.',
  place: 'Saltreach: net loft and reed bank',
  createdAtMs: DAY_MS - 86_400_000,
  sample: true,
  slatesSpoken: false,
  verdictOpenedAtMs: null,
  reference: { kind: 'candidate', levelId: own('chain', 'CA') },
  expectations: [{ person: 'Mixer', candidateId: own('chain', 'HO'), reason: 'It sounded clean on the phone.', sealedAtMs: DAY_MS - 3_600_000 }],
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
  files: TAKES.map((take) => ({
    id: own('file', take.slate),
    name: hireFileName(take),
    slateSpoken: null,
    recordings: take.setups.map((setup, channel) => ({
      id: own('recording', take.slate, setup.candidateId),
      channels: [channel],
      startS: null,
      endS: null,
      trackName: lettersOfHire(setup.candidateId),
      takeId: take.id,
      setupId: setup.id,
      matchedBy: 'file name' as const,
    })),
  })),
  rounds: [],
});
