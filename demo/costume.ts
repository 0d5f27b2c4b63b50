import { NO_SETTINGS } from '@marvet/core/domain/chain';
import { CLOTHS } from '@marvet/core/domain/clothLayer';
import { setupKey } from '@marvet/core/domain/factor';
import { placementDraftSchema } from '@marvet/core/domain/placement';
import type { PlanDraft } from '@marvet/core/domain/plan';
import { rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { sightDraftSchema } from '@marvet/core/domain/sight';
import { type SpotId, spotOf } from '@marvet/core/domain/spot';
import { STARTING_POINTS } from '@marvet/core/domain/startingPoint';
import { STARTING_SCRIPTS } from '@marvet/core/domain/startingScripts';
import { acousticsSchema } from '@marvet/core/domain/station';
import { wearerDraftSchema } from '@marvet/core/domain/wearer';
import { type BundledTrial, bundledTrial } from '@marvet/core/formats/bundle';
import { placementNumbers } from '@marvet/core/place/nearMouth';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import { takeKey } from '@marvet/core/plan/gather';
import { matrixSetups } from '@marvet/core/plan/matrix';
import { startPlan } from '@marvet/core/plan/startPlan';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';

const TRIAL_ID = demoId('trial', 'costume');
const own = (...words: (string | number)[]) => demoId('costume', ...words);
const DAY_MS = Date.UTC(2026, 4, 27, 7, 30, 0);
const POINT = STARTING_POINTS.find((point) => point.id === 'hidden lavalier')!;

type Links = [item: string, settings?: Partial<typeof NO_SETTINGS>][];
const SET = { lowCutHz: 80, limiter: false, noiseReduction: false, sampleRateHz: 48_000 } as const;

/** Two lavaliers, and one boom microphone whose line is split to recorder and camera. */
const CHAINS: BundledTrial['chains'] = (
  [
    ['OS', 'Osier at the breastbone', [['qo-mic'], ['qo-tx', { ...SET, gainDb: 18 }], ['qo-rx']], 'breastbone, under the apron', null],
    ['HE', 'Heron at the collar', [['wh-mic'], ['wh-tx', { ...SET, gainDb: 16 }], ['wh-rx']], 'under the collar', null],
    ['BR', 'Boom to the recorder', [['bm-mic'], ['bm-pole'], ['recorder', { ...SET, gainDb: 38, wordLength: '24 bit', power: 'phantom 48 V' }]], 'from above', null],
    [
      'BC',
      'Same boom to the camera',
      [['bm-mic'], ['bm-pole'], ['camera', { ...SET, gainDb: 20, wordLength: '16 bit', sampleRateHz: 44_100, automaticLevel: true }]],
      'from above',
      'BR',
    ],
  ] as [letters: string, name: string, links: Links, placement: string, splitOf: string | null][]
).map(([letters, name, links, placement, splitOf], position) => ({
  id: own('chain', letters),
  name,
  links: links.map(([key, settings]) => ({ itemId: demoId('item', key), settings: { ...NO_SETTINGS, ...settings } })),
  rig: { placement, onSkin: letters === 'OS' },
  split: splitOf ? { chainId: own('chain', splitOf), links: 2 } : null,
  candidate: true,
  tape: { kind: position + 1, letters },
  remark: '',
  position,
}));

const STATIONS: BundledTrial['stations'] = [
  {
    id: own('station', 1),
    name: 'sail loft',
    surfaces: 'boards, hanging canvas',
    noise: 'quiet, gulls on the roof',
    indoors: true,
    latitudeDeg: 54.5318,
    longitudeDeg: 9.0228,
    needsDaylight: false,
    hazards: [],
    acoustics: acousticsSchema.parse({ sizeM: [14, 8, 5], noiseDba: 30, windMs: 0 }),
    remark: '',
    position: 0,
  },
  {
    id: own('station', 2),
    name: 'market quay',
    surfaces: 'cobbles, open water',
    noise: 'carts, voices, wind from the west',
    indoors: false,
    latitudeDeg: 54.5325,
    longitudeDeg: 9.024,
    needsDaylight: true,
    hazards: ['road', 'water'],
    acoustics: acousticsSchema.parse({ noiseDba: 55, windMs: 5 }),
    remark: 'The quay is open to carts until nine.',
    position: 1,
  },
];

/** A placement at a usual spot. */
function worn(name: string, spot: SpotId) {
  const { at } = spotOf(spot);
  return { name, on: 'body' as const, spot, at, ...placementNumbers(at) };
}

const PLACEMENTS: BundledTrial['placements'] = [
  worn('breastbone, under the apron', 'breastbone low'),
  worn('under the collar', 'collar'),
  worn('under the brim of the hat', 'under a brim'),
  worn('seam of the shoulder', 'shoulder'),
  { name: 'from above', on: 'boom', heightM: 2.1, distanceM: 0.7, offAxisDeg: 45, aimDeg: 0 },
].map((draft, place) => ({ ...placementDraftSchema.parse(draft), id: own('placement', place) }));

const cloth = (...names: string[]) => names.map((name) => CLOTHS.find((each) => each.name === name)!);

/** The costume as it is worn: two ways to be heard through it. */
const RIGS: BundledTrial['rigs'] = [
  { name: 'apron tied', fixing: 'loop and tape', clothLayers: 2, clothLossDb: 4, layers: cloth('linen', 'wool knit'), cloth: 'linen over wool', faces: 'out', strainRelief: true },
  {
    name: 'apron loose',
    fixing: 'loop and tape',
    clothLayers: 1,
    clothLossDb: 4,
    layers: cloth('wool knit'),
    cloth: 'wool',
    faces: 'out',
    strainRelief: true,
    remark: 'The strings swing.',
  },
  {
    name: 'oilskin for the rain',
    fixing: 'cage',
    cover: 'cage',
    clothLayers: 2,
    layers: cloth('oilskin', 'wool knit'),
    cloth: 'oilskin over wool',
    faces: 'down',
    strainRelief: true,
  },
].map((draft, place) => ({ ...rigRecordDraftSchema.parse(draft), id: own('rig', place) }));

const SCRIPTS: BundledTrial['scripts'] = [STARTING_SCRIPTS[0]!, ...POINT.scripts, STARTING_SCRIPTS.at(-1)!].map((script, position) => ({
  ...script,
  id: own('script', position),
  position,
}));

function plan(): PlanDraft {
  const started = startPlan(alignPlan(emptyPlan(), { candidate: CHAINS, station: STATIONS, script: SCRIPTS }), POINT);
  const factors = started.factors.map((factor) =>
    factor.kind === 'windscreen'
      ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id !== 'fur' })) }
      : factor.kind === 'placement'
        ? { ...factor, kind: 'rig' as const, name: 'Apron', levels: RIGS.slice(0, 2).map(({ id, name }) => ({ id, label: name, value: null, ticked: true })) }
        : factor,
  );
  // Nobody would stand on the quay without foam; and so foam and place can no longer be told apart.
  const leftOut = matrixSetups(factors)
    .filter((setup) => setup.station === own('station', 2) && setup.windscreen === 'bare')
    .map(setupKey);
  return {
    ...started,
    factors,
    leftOut,
    design: { ...started.design, kind: 'pairs' },
    rules: [{ id: own('rule', 1), kind: 'windscreen', levelIds: ['foam'], withKind: 'station', withLevelIds: [own('station', 1)] }],
    together: false,
    order: { counterbalanced: false, blockedBy: 'none', pinned: [] },
    changeExceptions: [{ kind: 'station', fromId: own('station', 2), toId: own('station', 1), seconds: 1500 }],
    day: { startsAtMs: DAY_MS, endsAtMs: DAY_MS + 3 * 3_600_000, breaks: [{ startsAtMs: DAY_MS + 90 * 60_000, lengthMin: 20 }], batteryChangeMin: 5 },
  };
}

/** The plan with the loft's room tone locked to the front, before anybody else is in the room. */
function withRoomToneFirst(): PlanDraft {
  const unlocked = plan();
  const { takes } = buildPlan(unlocked, { chains: CHAINS, items: ITEMS, stations: STATIONS });
  const roomTone = takes.find((take) => take.condition.station === own('station', 1) && take.condition.script === SCRIPTS.at(-1)?.id);
  return { ...unlocked, order: { ...unlocked.order, pinned: roomTone ? [{ key: takeKey(roomTone), position: 0 }] : [] } };
}

/** Who wears the apron; the hat has a brim to hide under. */
const WEARERS: BundledTrial['wearers'] = [
  {
    ...wearerDraftSchema.parse({
      name: 'Fishwife',
      build: 'middle',
      heightM: 1.68,
      hair: 'long',
      head: 'hat',
      transmitterDeg: 180,
      radioMhz: 606,
      consent: 'Asked on 26 May: the assistant may rig at collar and apron, behind the screen, nobody else in the room.',
    }),
    id: own('wearer', 1),
  },
];

const ASKED_MS = Date.UTC(2026, 4, 26, 17, 0, 0);

/** The camera was asked twice about the same brim, and answered twice. */
const SIGHTS: BundledTrial['sights'] = [
  { placement: 2, rig: 1, seen: 'seen, and refused', atMs: ASKED_MS, remark: 'A dark dot under the brim.' },
  { placement: 2, rig: 1, seen: 'not seen', atMs: ASKED_MS + 2 * 3_600_000, remark: 'Same brim, same lens; lamp a little lower.' },
  { placement: 0, rig: 0, seen: 'not seen', atMs: ASKED_MS + 60_000, remark: '' },
].map(({ placement, rig, ...said }, place) => ({
  ...sightDraftSchema.parse({ ...said, placementId: own('placement', placement), rigId: own('rig', rig), askedBy: 'Mixer', answeredBy: 'Camera' }),
  id: own('sight', place),
}));

/** A trial as it lies on the kitchen table the night before: a starting point, a plan that is not fair yet, no slates. */
export const COSTUME = bundledTrial({
  id: TRIAL_ID,
  name: 'Fishwife costume',
  question: 'Which lavalier hides under the fishwife’s apron and still blends with the boom?',
  use: POINT.use,
  place: 'Saltreach: sail loft and market quay',
  createdAtMs: Date.UTC(2026, 4, 26, 19, 0, 0),
  sample: true,
  slatesSpoken: false,
  verdictOpenedAtMs: null,
  expectations: [{ person: 'Mixer', candidateId: own('chain', 'OS'), reason: 'Its cap lifts what wool takes away.', sealedAtMs: Date.UTC(2026, 4, 26, 19, 30, 0) }],
  preflight: [],
  roles: [
    { id: own('role', 1), name: 'Fishwife', count: 1, needs: 'shouts and whispers, bends over barrels', robustness: 'rough' },
    { id: own('role', 2), name: 'Customers', count: 3, needs: 'a line each', robustness: 'normal' },
  ],
  budget: { amount: 4000, currency: 'EUR' },
  comparisons: [],
  criteria: POINT.criteria.map((criterion, position) => ({ ...criterion, id: own('criterion', position), position })),
  chains: CHAINS,
  stations: STATIONS,
  placements: PLACEMENTS,
  rigs: RIGS,
  wearers: WEARERS,
  sights: SIGHTS,
  scripts: SCRIPTS,
  plan: { ...withRoomToneFirst(), committedAtMs: null },
  marks: [],
  takes: [],
  files: [],
  rounds: [],
});
