import { readFileSync } from 'node:fs';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { chainBurden } from '@marvet/core/chain/burden';
import { checkJoints } from '@marvet/core/chain/joints';
import { stationCautions } from '@marvet/core/domain/caution';
import { weightShares } from '@marvet/core/domain/criterion';
import { conditionKey } from '@marvet/core/domain/factor';
import { isSpoiled, setupCondition } from '@marvet/core/domain/take';
import { compareTakes } from '@marvet/core/fair/compare';
import { bundleSchema } from '@marvet/core/formats/bundle';
import { claimsOf } from '@marvet/core/measure/eventWords';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { takeKey } from '@marvet/core/plan/gather';
import { matrixSize } from '@marvet/core/plan/matrix';
import { changesBetween } from '@marvet/core/plan/order/changeCost';
import { type WorkedOutPlan, workOutPlan } from '@marvet/core/plan/workOut';
import { rangeRows, stationTroubles } from '@marvet/core/radio/rangeWindows';
import { matchFile } from '@marvet/core/takes/matchFile';
import { reportOf } from '@marvet/core/testing/signals';
import { describe, expect, it } from 'vitest';
import { COSTUME } from './costume.ts';
import { HIRE_SHELF } from './hireShelf.ts';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';
import { CHAINS, SIMULATED } from './kit.ts';
import { LANDING } from './landing.ts';
import { PLACES, SCRIPTS, SCRIPTS_BY_KEY, STATIONS } from './places.ts';
import { REED_WALK } from './reedWalk.ts';
import { DEMO_FILES } from './render.ts';
import { SALTREACH } from './saltreach.ts';
import { fileNameOf } from './saltreachDay.ts';
import { WHEELHOUSE } from './wheelhouse.ts';

const items = new Map(ITEMS.map((item) => [item.id, item]));

describe('the demo bundle', () => {
  it('is valid, with no identity given twice', () => {
    const bundle = bundleSchema.parse({ marvetBundle: 2, items: ITEMS, trials: [SALTREACH, WHEELHOUSE, COSTUME, HIRE_SHELF, REED_WALK, LANDING] });
    const ids = bundle.trials.flatMap((trial) => [
      trial.id,
      ...[trial.criteria, trial.chains, trial.stations, trial.scripts, trial.takes, trial.rounds].flatMap((list) => list.map((row) => row.id)),
    ]);
    expect(new Set([...ids, ...ITEMS.map((item) => item.id)]).size).toBe(ids.length + ITEMS.length);
  });

  it('has the same identities every time', () => {
    expect(demoId('trial', 'saltreach')).toBe(SALTREACH.id);
    expect(demoId('a', 'b')).not.toBe(demoId('ab'));
  });

  it('every link of every chain is in the library', () => {
    for (const chain of [...SALTREACH.chains, ...WHEELHOUSE.chains, ...COSTUME.chains]) {
      expect(chain.links.length).toBeGreaterThanOrEqual(3);
      expect(chainBurden(chain, items).gaps).toEqual([]);
    }
    for (const chain of HIRE_SHELF.chains) expect(chainBurden(chain, items).gaps).toEqual([]);
  });
});

describe('Saltreach', () => {
  it('compares four worn chains and a boom, each with its own tape', () => {
    expect(CHAINS).toHaveLength(5);
    expect(new Set(CHAINS.map((chain) => chain.tape.letters)).size).toBe(5);
    expect(new Set(CHAINS.map((chain) => chain.tape.kind)).size).toBe(5);
    expect([...SIMULATED.values()].filter((candidate) => candidate.wornAtM !== null && candidate.radio !== null)).toHaveLength(4);
  });

  it('has five stations; danger carries its caution', () => {
    expect(Object.keys(PLACES)).toHaveLength(5);
    const cautions = SALTREACH.stations.flatMap(stationCautions);
    expect(new Set(cautions.map((caution) => caution.danger))).toEqual(new Set(['water', 'overhead line', 'vehicle']));
  });

  it('has two talkers, lines of four kinds, and silence', () => {
    expect(new Set(SCRIPTS.map((script) => script.talker).filter(Boolean)).size).toBe(2);
    expect(new Set(Object.values(SCRIPTS_BY_KEY).map((script) => script.clip?.split('-')[1] ?? 'silence'))).toEqual(
      new Set(['neutral', 'plosives', 'sibilants', 'counting', 'silence']),
    );
  });

  it.each(Object.values(SCRIPTS_BY_KEY).flatMap((script) => script.clip ?? []))('the dry clip %s is there and short enough for a take', (clip) => {
    const { format } = readWavHeader(bufferSource(readFileSync(new URL(`../core/simulate/voices/${clip}.wav`, import.meta.url))));
    expect(format).toMatchObject({ channels: 1, bitDepth: 16, encoding: 'pcm' });
    expect(format.durationS).toBeGreaterThan(4.5);
    expect(format.durationS).toBeLessThan(11.5);
  });

  it('has at least 36 takes, which are those of its plan in the plan’s order', () => {
    const planned = buildPlan(SALTREACH.plan, { chains: CHAINS, items: ITEMS, stations: STATIONS }).takes;
    const first = SALTREACH.takes.filter((take) => take.pass === 1);
    expect(SALTREACH.takes.length).toBeGreaterThanOrEqual(36);
    expect(first.map((take) => conditionKey(take.condition))).toEqual(planned.map((take) => conditionKey(take.condition)));
    expect(matrixSize(SALTREACH.plan.factors)).toBeGreaterThan(first.length * 5);
  });

  it('moves to each station once, and nowhere indoors with fur', () => {
    const moves = SALTREACH.takes.slice(1).filter((take, index) => changesBetween(SALTREACH.takes[index] ?? null, take).includes('station'));
    expect(moves).toHaveLength(4);
    const indoors = new Set(SALTREACH.stations.filter((station) => station.indoors).map((station) => station.id));
    expect(SALTREACH.takes.filter((take) => indoors.has(take.condition.station) && take.condition.windscreen === 'fur')).toEqual([]);
  });

  it('was run as a day goes: one after the other, one spoiled and done again', () => {
    SALTREACH.takes.forEach((take, index) => {
      expect(take.stoppedAtMs).toBeGreaterThan(take.startedAtMs ?? 0);
      expect(take.startedAtMs).toBeGreaterThanOrEqual(SALTREACH.takes[index - 1]?.stoppedAtMs ?? 0);
    });
    const spoiled = SALTREACH.takes.filter(isSpoiled);
    expect(spoiled).toHaveLength(1);
    expect(SALTREACH.takes.find((take) => take.slate === spoiled[0]?.slate && take.pass === 2)?.flags.some((mark) => mark.flag === 'spoiled')).toBe(false);
  });

  it('the candidates of every take may be compared', () => {
    for (const take of SALTREACH.takes) {
      const compared = take.setups.map((setup) => ({
        ...take,
        takeId: take.id,
        setupId: setup.id,
        candidateId: setup.candidateId,
        condition: setupCondition(take, setup),
        gains: take.gains[setup.id] ?? {},
      }));
      expect(compareTakes(compared, 'candidate').fairness).toBe('fair');
    }
  });

  it('every file finds its take by its name', () => {
    for (const take of SALTREACH.takes) expect(matchFile(fileNameOf(take), { scene: null, take: null }, SALTREACH.takes)).toEqual({ takeId: take.id, by: 'file name' });
  });

  it('weighs its criteria to a whole, and two sample listeners scored all of what is listened to', () => {
    expect(weightShares(SALTREACH.criteria.map((criterion) => criterion.weight)).reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 12);
    const listened = SALTREACH.criteria.filter((criterion) => criterion.kind === 'listened');
    const [round] = SALTREACH.rounds;
    expect(round?.listeners).toHaveLength(2);
    for (const listener of round!.listeners) {
      expect(listener.name).toContain('sample');
      expect([...listener.order].sort()).toEqual([0, 1, 2, 3, 4]);
      expect(listener.ratings).toHaveLength(listened.length * round!.recordingIds.length);
    }
  });

  it('expects the dearest to win', () => {
    const prices = CHAINS.map((chain) => ({ id: chain.id, price: chainBurden(chain, items).price ?? 0 }));
    const dearest = prices.reduce((most, chain) => (chain.price > most.price ? chain : most));
    expect(SALTREACH.expectations[0]?.candidateId).toBe(dearest.id);
  });
});

describe('the wheelhouse trial', () => {
  it('is planned and not begun', () => {
    expect(WHEELHOUSE.takes.length).toBe(8);
    expect(WHEELHOUSE.takes.every((take) => take.status === 'planned' && take.startedAtMs === null)).toBe(true);
    expect(WHEELHOUSE).toMatchObject({ files: [], rounds: [], expectations: [], verdictOpenedAtMs: null });
  });
});

describe('the costume trial', () => {
  const context = { chains: COSTUME.chains, items: ITEMS, stations: COSTUME.stations.map((station) => ({ ...station, trialId: COSTUME.id })), scripts: COSTUME.scripts };
  const worked = workOutPlan(COSTUME.plan, context) as WorkedOutPlan;

  it('lies on the table without slates, planned by covering pairs', () => {
    expect(COSTUME).toMatchObject({ takes: [], files: [], plan: { design: { kind: 'pairs' } } });
    expect(worked.built.takes.length).toBeGreaterThan(8);
    expect(worked.built.takes.length).toBeLessThan(worked.takesOfDesign.full);
  });

  it('begins with the room tone of the loft, which is locked there', () => {
    expect(COSTUME.plan.order.pinned).toHaveLength(1);
    expect(takeKey(worked.built.takes[0]!)).toBe(COSTUME.plan.order.pinned[0]?.key);
    expect(COSTUME.scripts.find((script) => script.id === worked.built.takes[0]?.condition.script)?.name).toBe('Room tone');
  });

  it('varies the apron by the rigs of its kit, which have numbers', () => {
    const levels = COSTUME.plan.factors.find((factor) => factor.kind === 'rig')!.levels;
    const varied = levels.map((level) => COSTUME.rigs.find((rig) => rig.id === level.id));
    expect(varied).toHaveLength(2);
    for (const rig of varied) expect(rig?.clothLossDb).not.toBeNull();
    // Every rig has cloths whose loss can be worked out, the one for the rain too, which is not varied.
    for (const rig of COSTUME.rigs) expect(rig.layers.length).toBeGreaterThan(0);
    expect(COSTUME.placements.every((placement) => placement.distanceM !== null)).toBe(true);
  });

  it('is not fair yet in a way that can be mended', () => {
    expect(worked.foreseen.length).toBeGreaterThan(0);
    for (const finding of worked.foreseen) expect(finding.remedies.length).toBeGreaterThan(0);
  });

  it('has a split whose second half does not go together: what the checks of Kit find is in the demo', () => {
    const camera = COSTUME.chains.find((chain) => chain.split !== null)!;
    const found = checkJoints(camera, items).map((finding) => finding.sentence);
    expect(found).toContainEqual(expect.stringContaining('takes mini-jack, 3-pole'));
    expect(found).toContainEqual(expect.stringContaining('gives plug-in'));
  });
});

describe('the hire shelf', () => {
  const far = DEMO_FILES.filter(({ project, take }) => project === HIRE_SHELF.name && take.condition.distance === '40');
  const measured = far.map(({ channels, trackNames }) => {
    const rendered = channels();
    return new Map(trackNames.map((letters, channel) => [letters, reportOf([rendered[channel] as Float64Array]).channels[0]!]));
  });
  const claimsOfLink = (letters: string) => new Set(measured.flatMap((take) => claimsOf(take.get(letters)!).map(({ claim }) => claim)));
  const eventsOf = (letters: string) => measured.flatMap((take) => take.get(letters)!.events.map((event) => event.kind));

  it('hears one wire through seven links at once', () => {
    for (const take of HIRE_SHELF.takes) expect(take.setups).toHaveLength(7);
    expect(HIRE_SHELF.chains.filter((chain) => chain.split !== null)).toHaveLength(6);
  });

  it.each([
    ['OX', 'noise bursts'],
    ['TA', 'repeats'],
  ])('%s breaks up, by %s', (letters) => {
    expect(eventsOf(letters).filter((kind) => kind === 'dropout').length).toBeGreaterThan(5);
  });

  it.each([
    ['OX', 'hum'],
    ['GA', 'gate'],
    ['AL', 'automatic level'],
    ['HT', 'overload'],
  ] as const)('of %s its %s is told', (letters, claim) => {
    expect(claimsOfLink(letters)).toContain(claim);
  });

  it('of the cable none of it is told', () => {
    expect(eventsOf('CA')).toEqual([]);
    expect([...claimsOfLink('CA')]).toEqual([]);
  });
});

describe('the reed bank walk', () => {
  it('was walked three times, with marks, legs, an incident that came again, and readings of every stand-in', () => {
    const walked = REED_WALK.takes.filter(({ status }) => status === 'done');
    expect(walked).toHaveLength(3);
    for (const take of walked) {
      expect(take.walk.filter(({ what }) => what === 'mark').length).toBe(14);
      expect(take.walk.some((entry) => entry.what === 'leg' && entry.side === 'facing')).toBe(true);
      for (const device of REED_WALK.devices) {
        const seconds = REED_WALK.readings.filter(({ deviceId, atS }) => deviceId === device.id && atS >= (take.startedAtMs ?? 0) / 1000 && atS <= (take.stoppedAtMs ?? 0) / 1000);
        expect(seconds.length).toBeGreaterThan(150);
        expect(Object.keys(seconds[0]!.values).sort()).toEqual(device.about!.channels.map(({ id }) => id).sort());
      }
    }
    expect(walked[1]!.tried[0]?.incidentId).toBe(walked[0]!.incidents[0]?.id);
  });

  it('tells a range for both links on both sides, shorter when turned, and a spot that speaks for the place', () => {
    const takes = REED_WALK.takes.map((take) => ({ ...take, trialId: REED_WALK.id, binnedAtMs: null }));
    const records = { plan: REED_WALK.plan, takes, chains: REED_WALK.chains, items, tracks: new Map() };
    const rows = rangeRows([], records);
    expect(rows).toHaveLength(4);
    for (const { id } of REED_WALK.chains) {
      const of = (side: string) => rows.find((row) => row.candidateId === id && row.side === side)?.range.reliableToM ?? 0;
      expect(of('turned')).toBeLessThan(of('facing'));
    }
    const [{ troubles }] = stationTroubles([], records) as [ReturnType<typeof stationTroubles>[number]];
    expect(troubles.filter(({ speaksFor }) => speaksFor === 'the place').some(({ fromM, toM }) => fromM < 72 && toM > 62)).toBe(true);
  });
});
