import { preflightChecks } from '@marvet/core/chain/preflight';
import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { type BundledTrial, bundledTrial } from '@marvet/core/formats/bundle';
import type { z } from 'zod';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';
import { CHAINS, chainId } from './kit.ts';
import { FRAMES, PLACEMENTS, RIGS, WEARERS } from './loftPlacing.ts';
import { SCRIPTS, STATIONS } from './places.ts';
import { DAY_MS, FILES, PLAN, PLAN_MIN, TAKES } from './saltreachDay.ts';
import { noted, ranked, scored, toldApart } from './saltreachRounds.ts';

const TRIAL_ID = demoId('trial', 'saltreach');

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
    { person: 'Orla (sample)', candidateId: chainId('QO'), reason: 'Small, and the others swear by it.', sealedAtMs: DAY_MS - 3 * 86_400_000 },
    { person: 'Assistant', candidateId: chainId('QO'), reason: 'It held on the last ferry.', sealedAtMs: DAY_MS - 3 * 86_400_000 },
  ],
  preflight: preflightChecks(CHAINS, new Map(ITEMS.map((item) => [item.id, item])), PLAN_MIN)
    .filter((check) => !check.text.includes('spare'))
    .map((check, index) => ({ key: check.key, person: index % 2 ? 'Assistant' : 'Mixer', atMs: DAY_MS - 14 * 3_600_000 + index * 40_000 })),
  roles: [
    {
      id: demoId('role', 'ferrier'),
      name: 'Ferrier',
      count: 1,
      needs: 'every word above water and engine, hidden under wool',
      robustness: 'rough',
      importance: 3,
      spares: 1,
      mustHide: true,
      mustLock: true,
    },
    { id: demoId('role', 'netmaker'), name: 'Netmaker', count: 1, needs: 'quiet scenes indoors', robustness: 'normal', importance: 2, mustHide: true },
    { id: demoId('role', 'passengers'), name: 'Passengers', count: 4, needs: 'a line each, out of the box', robustness: 'normal', mustHide: true },
  ],
  budget: { amount: 9000, currency: 'EUR' },
  hoursAYear: 300,
  comparisons: COMPARISONS,
  sample: true,
  slatesSpoken: false,
  verdictOpenedAtMs: DAY_MS + 2 * 86_400_000,
  criteria: CRITERIA,
  chains: CHAINS,
  stations: STATIONS,
  placements: PLACEMENTS,
  rigs: RIGS,
  frames: FRAMES,
  wearers: WEARERS,
  scripts: SCRIPTS,
  plan: { ...PLAN, committedAtMs: DAY_MS - 86_400_000 },
  marks: MARKS.flatMap(([letters, hidden, locks, remark]) => [
    { chainId: chainId(letters), criterionId: demoId('criterion', 'hidden'), points: hidden, remark: '' },
    { chainId: chainId(letters), criterionId: demoId('criterion', 'locks'), points: locks, remark },
  ]),
  takes: TAKES,
  files: FILES,
  rounds: [scored(), toldApart(), ranked()],
  moments: noted(),
});
