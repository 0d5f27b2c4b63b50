import type { BundledTrial } from '@marvet/core/formats/bundle';
import { alignPlan, emptyPlan } from '@marvet/core/plan/align';
import { matrixSetups } from '@marvet/core/plan/matrix';
import { gatherTakes, orderTakes } from '@marvet/core/plan/order';
import { reconcileTakes } from '@marvet/core/plan/reconcile';
import { demoId } from './ids.ts';

const TRIAL_ID = demoId('trial', 'wheelhouse');
const own = (...words: (string | number)[]) => demoId('wheelhouse', ...words);
const settings = { gainDb: null, padDb: null, lowCutHz: 80, limiter: false, note: '' };

const CHAINS: BundledTrial['chains'] = [
  { letters: 'SP', name: 'Spit, short', items: ['bm-mic', 'bm-pole', 'recorder'] },
  { letters: 'GR', name: 'Groyne, tube', items: ['bm-tube', 'bm-pole', 'recorder'] },
].map(({ letters, name, items }, position) => ({
  id: own('chain', letters),
  name,
  links: items.map((key) => ({ itemId: demoId('item', key), settings })),
  rig: { placement: 'from above', onSkin: false },
  candidate: true,
  tape: { kind: position + 4, letters },
  remark: '',
  position,
}));

const STATIONS: BundledTrial['stations'] = [
  { id: own('station', 1), name: 'wheelhouse', surfaces: 'painted metal, glass', noise: 'engine through the floor', indoors: true, hazards: ['vehicle'], remark: '', position: 0 },
  { id: own('station', 2), name: 'jetty', surfaces: 'planks over water', noise: 'open, lapping', indoors: false, hazards: ['water', 'overhead line'], remark: '', position: 1 },
];

const SCRIPTS: BundledTrial['scripts'] = [
  { id: own('script', 1), name: 'Neutral', text: 'The ferry leaves the landing at a quarter to nine.', purpose: 'Compare the colour.', talker: 'Ferrier', lengthS: 8, position: 0 },
  { id: own('script', 2), name: 'Room tone', text: 'Silence. Nobody moves.', purpose: 'Noise floor.', talker: '', lengthS: 8, position: 1 },
];

function plan() {
  const base = alignPlan(emptyPlan(), { candidate: CHAINS, station: STATIONS, script: SCRIPTS });
  const distances = [
    { id: '0.6', label: '0.6 m', value: 0.6, ticked: true },
    { id: '1.2', label: '1.2 m', value: 1.2, ticked: true },
  ];
  const factors = base.factors.map((factor) => (factor.kind === 'distance' ? { ...factor, levels: distances } : factor));
  return { ...base, factors, controls: [{ name: 'Talker', value: 'Ferrier' }] };
}

const PLAN = plan();
const PLANNED = orderTakes(gatherTakes(matrixSetups(PLAN.factors, []), true));

/** A trial that stops after its plan, so that a new user can run its field part. */
export const WHEELHOUSE: BundledTrial = {
  id: TRIAL_ID,
  name: 'Wheelhouse boom',
  question: 'Short boom microphone or tube in a small metal room?',
  use: 'Two-hander in the wheelhouse, camera close, boom from above.',
  place: 'Saltreach: wheelhouse and jetty',
  createdAtMs: Date.UTC(2026, 4, 20, 17, 0, 0),
  expectation: null,
  verdictOpenedAtMs: null,
  criteria: [
    { id: own('criterion', 1), name: 'Voice over noise', kind: 'measured', measureId: 'noise.snrDb', weight: 2, best: 40, worst: 10, dealbreaker: null, remark: '', position: 0 },
    {
      id: own('criterion', 2),
      name: 'Room in the sound',
      kind: 'listened',
      measureId: null,
      weight: 3,
      best: 10,
      worst: 0,
      dealbreaker: null,
      remark: '10: dry. 0: a tin.',
      position: 1,
    },
    { id: own('criterion', 3), name: 'Fits under the roof', kind: 'inspected', measureId: null, weight: 1, best: 10, worst: 0, dealbreaker: null, remark: '', position: 2 },
  ],
  chains: CHAINS,
  stations: STATIONS,
  scripts: SCRIPTS,
  plan: PLAN,
  marks: [],
  takes: reconcileTakes(TRIAL_ID, [], PLANNED).takes.map(({ binnedAtMs: _binned, trialId: _trial, ...take }) => ({
    ...take,
    id: own('take', take.slate),
    status: 'planned' as const,
  })),
  files: [],
  sessions: [],
};
