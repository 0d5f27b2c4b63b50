import { criterionDraftSchema } from '@marvet/core/domain/criterion';
import { deviceDraftSchema } from '@marvet/core/domain/device';
import { type Thinned, thinnedWith } from '@marvet/core/domain/reading';
import { acousticsSchema } from '@marvet/core/domain/station';
import { type Take, untouchedTake } from '@marvet/core/domain/take';
import type { WalkEntry, WalkPress } from '@marvet/core/domain/walk';
import { type BundledTrial, bundledTrial } from '@marvet/core/formats/bundle';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import { STAND_INS } from '@marvet/core/simulate/standInDevices';
import { type WalkScene, walkScene } from '@marvet/core/simulate/walkScene';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';
import { CHAINS as SALTREACH_CHAINS } from './kit.ts';
import { PLACES } from './places.ts';

const TRIAL_ID = demoId('trial', 'reed walk');
const own = (...words: (string | number)[]) => demoId('reed walk', ...words);
const DAY_MS = Date.UTC(2026, 4, 20, 9, 30, 0);
const MARKS_M = [10, 20, 40, 60, 80, 100, 120];
const SEEDS = [21, 34, 55];
/** The line to the pumping station crosses the bank there. */
const POWER_LINE_M = 70;
const APART_MS = 9 * 60_000;

const CHAINS: BundledTrial['chains'] = ['QO', 'WH'].map((letters, position) => {
  const chain = SALTREACH_CHAINS.find(({ tape }) => tape.letters === letters)!;
  return { ...chain, id: own('chain', letters), split: null, position };
});
const STATIONS: BundledTrial['stations'] = [
  { ...PLACES.reed!.station, hazards: ['water', 'overhead line'], acoustics: acousticsSchema.parse({ noiseDba: 36, windMs: 2.6 }), id: own('station', 'reed'), position: 0 },
];
const { latitudeDeg, longitudeDeg } = PLACES.reed!.station as { latitudeDeg: number; longitudeDeg: number };
const RECEIVER = { latitudeDeg, longitudeDeg };
const SCRIPTS: BundledTrial['scripts'] = [
  {
    id: own('script', 1),
    name: 'Counting on the walk',
    text: 'One to ten aloud, over and over.',
    purpose: 'Break-ups, out and back.',
    talker: 'Ferrier',
    lengthS: 200,
    position: 0,
  },
];

function plan() {
  const base = alignPlan(emptyPlan(), { candidate: CHAINS, station: STATIONS, script: SCRIPTS });
  const pegs = MARKS_M.map((value) => ({ id: String(value), label: `${value} m`, value, ticked: false }));
  const factors = base.factors.map((factor) => {
    if (factor.kind === 'distance') return { ...factor, levels: [{ id: 'walk', label: 'walk to 120 m', value: null, ticked: true }, ...pegs] };
    return factor.kind === 'windscreen' ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: level.id === 'fur' })) } : factor;
  });
  return { ...base, factors, repeats: 4, controls: [{ name: 'Transmitters', value: 'both at the belt, in the small of the back' }] };
}
const PLAN = plan();

const sceneOf = (index: number): WalkScene => walkScene({ seed: SEEDS[index]!, needsDbm: [-95, -88], powerLineM: POWER_LINE_M });

/** A walk as somebody logs it who listens to both links: a break-up is pressed when it is heard, and not twice in three seconds. */
function pressesOf(scene: WalkScene, take: Take, startMs: number): WalkEntry[] {
  const entries: WalkEntry[] = [];
  const press = (atS: number, walked: WalkPress) => entries.push({ ...walked, id: own('press', take.slate, entries.length), atMs: startMs + Math.round(atS * 1000) });
  press(0, { what: 'receiver', ...RECEIVER });
  press(0.4, { what: 'leg', side: 'turned', heading: 'out' });
  const heardUntil = take.setups.map(() => 0);
  let before = scene.at(0);
  for (let tenth = 1; tenth < 10 * scene.lengthS; tenth++) {
    const atS = tenth / 10;
    const now = scene.at(atS);
    if (now.heading !== before.heading && now.heading === 'back') press(atS, { what: 'leg', side: 'facing', heading: 'back' });
    const passed = MARKS_M.find((metres) => before.distanceM < metres !== now.distanceM < metres);
    if (passed !== undefined && atS > 1) press(atS + 0.3, { what: 'mark', distanceM: passed, by: 'peg' });
    now.muted.forEach((muted, channel) => {
      if (!muted || atS < (heardUntil[channel] as number)) return;
      heardUntil[channel] = atS + 3;
      press(atS + 0.7, { what: 'link', setupIds: [take.setups[channel]!.id], state: 'broke up' });
    });
    before = now;
  }
  press(55, { what: 'in the way', text: 'power line' });
  press(3, { what: 'on air', text: 'the ferry’s walkie-talkie, now and then', levelDbm: -71 });
  return entries.sort((a, b) => a.atMs - b.atMs);
}

const ordered = buildPlan(PLAN, { chains: CHAINS, items: ITEMS, stations: STATIONS }).takes;
const [whooper] = [own('chain', 'WH')];

function walkedTake(index: number): Take {
  const planned = ordered[index]!;
  const setups = planned.setups.map(({ candidateId, levels }) => ({ id: own('setup', index, candidateId), candidateId, levels }));
  const take = untouchedTake({ id: own('take', index), trialId: TRIAL_ID, slate: index + 1, position: index, condition: planned.condition, setups });
  if (index >= SEEDS.length) return take;
  const scene = sceneOf(index);
  const startMs = DAY_MS + index * APART_MS;
  const hit = setups.find(({ candidateId }) => candidateId === whooper)!;
  const other = setups.find((setup) => setup !== hit)!;
  const atMs = startMs + 58_000;
  const incidentId = own('incident', 'tick');
  const odd =
    index === 0
      ? { incidents: [{ id: incidentId, heard: 'Ticking under the line before it breaks up', wasOn: 'walkie-talkie on the ferry', setupIds: [hit.id], atMs }] }
      : { tried: [{ id: own('tried', index), incidentId, cameSetupIds: [hit.id], stayedSetupIds: [other.id], atMs }] };
  return {
    ...take,
    ...odd,
    status: 'done',
    startedAtMs: startMs,
    stoppedAtMs: startMs + Math.floor(scene.lengthS) * 1000,
    windMs: 2.6,
    noiseDba: 41,
    walk: pressesOf(scene, { ...take, setups }, startMs),
  };
}

const TAKES = ordered.map((_planned, index) => walkedTake(index));

const DEVICES: BundledTrial['devices'] = STAND_INS.map(({ name, kind, by, channels }, position) => ({
  ...deviceDraftSchema.parse({
    name,
    kind,
    way: { by, host: '127.0.0.1', port: 4821 + position },
    // They are listened to once somebody starts them.
    on: false,
    ties: kind === 'receiver' ? CHAINS.map(({ id }, channel) => ({ group: String(channel + 1), candidateId: id })) : [],
    position,
  }),
  id: own('device', position),
  about: { channels, session: 'demo', lastN: 0 },
}));

/** What the devices told on the walks, second by second. */
const READINGS: BundledTrial['readings'] = SEEDS.flatMap((_seed, index) => {
  const scene = sceneOf(index);
  const startMs = DAY_MS + index * APART_MS;
  return STAND_INS.flatMap((device, position) =>
    Array.from({ length: Math.floor(scene.lengthS) }, (_, second) => {
      const values: Record<string, Thinned> = {};
      for (let ms = 0; ms < 1000; ms += device.everyMs) {
        const atMs = startMs + second * 1000 + ms;
        for (const [id, value] of Object.entries(device.values(scene.at(second + ms / 1000), atMs, RECEIVER))) values[id] = thinnedWith(values[id], value);
      }
      return { deviceId: own('device', position), atS: startMs / 1000 + second, values };
    }),
  );
});

const CRITERIA = [
  { name: 'Holds facing', kind: 'measured', measureId: 'range.facingM', weight: 40, best: 120, worst: 20 },
  { name: 'Holds turned', kind: 'measured', measureId: 'range.turnedM', weight: 60, best: 80, worst: 10, dealbreaker: { side: 'below', limit: 15 } },
  { name: 'Shows that it is about to fail', kind: 'inspected', weight: 20, best: 10, worst: 0 },
] as const;

/** Two links of the short list, walked out and back along the reed bank with all stand-ins running. */
export const REED_WALK = bundledTrial({
  id: TRIAL_ID,
  name: 'Reed bank walk',
  question: 'How far do the two links of the short list hold along the reed bank, and is it the place or the set that fails?',
  use: 'Wide shots from the bank, cart at the gate, up to 60 m.',
  place: 'Saltreach: reed bank',
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
  devices: DEVICES,
  readings: READINGS,
  plan: { ...PLAN, committedAtMs: DAY_MS - 3_600_000 },
  marks: [],
  takes: TAKES,
  files: [],
  rounds: [],
});
