import { kitGains } from '@marvet/core/chain/kitGains';
import { chainCautions, stationCautions } from '@marvet/core/domain/caution';
import type { Chain } from '@marvet/core/domain/chain';
import { newId } from '@marvet/core/domain/identity';
import type { Plan } from '@marvet/core/domain/plan';
import { candidatesOf, type Take } from '@marvet/core/domain/take';
import { ladderTurn } from '@marvet/core/plan/design/ladderTurn';
import { planTime } from '@marvet/core/plan/time';
import { startGains } from '@marvet/core/takes/startGains';
import { useCallback, useEffect, useMemo } from 'react';
import { useWhoAmIQuery } from '../../data/door.ts';
import { useChainsQuery, useItemsQuery, usePreflightQuery, useScriptsQuery, useStationsQuery } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { usePlanQuery, useTakesQuery } from '../../data/work.ts';
import { Empty, Loaded } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { Alarms } from './Alarms.tsx';
import { currentTake, nextTake } from './currentTake.ts';
import { DayLeft } from './DayLeft.tsx';
import { DevicesView } from './DevicesView.tsx';
import { FIELD_VIEWS, FieldNav } from './FieldNav.tsx';
import { LinesView } from './LinesView.tsx';
import { openChecks } from './openChecks.ts';
import { PhonesView } from './PhonesView.tsx';
import { Runner } from './Runner.tsx';
import { RecordStrip } from './record/RecordStrip.tsx';
import { RecordView } from './record/RecordView.tsx';
import { useRecordTakes } from './record/useTakeRecorder.ts';
import { Slates } from './Slates.tsx';
import { TakeNotes } from './TakeNotes.tsx';
import { useFieldLog } from './useFieldLog.ts';
import { WalkSide } from './WalkSide.tsx';
import { WalkView } from './WalkView.tsx';

/** A script whose length nobody knows takes about so long. */
const SCRIPT_S = 10;
const NO_CHAINS: Chain[] = [];

/** The runner: the next setup in large type, and a log that loses nothing. */
export default function Field() {
  const trialId = useTrialId();
  const takesQuery = useTakesQuery(trialId);
  const stations = useStationsQuery(trialId);
  const scripts = useScriptsQuery(trialId);
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const plan = usePlanQuery(trialId);
  const preflight = usePreflightQuery(trialId);
  const guest = Boolean(useWhoAmIQuery().data?.guest);
  const log = useFieldLog(trialId);
  useRecordTakes(trialId, log.takes, chains.data ?? NO_CHAINS);
  const [search, changeAddress] = useAddress();
  const view = FIELD_VIEWS.find((each) => each === search.get('view')) ?? 'runner';
  const current = useMemo(() => currentTake(log.takes, search.get('take')), [log.takes, search]);
  const lengthS = useCallback((id: string) => scripts.data?.find((script) => script.id === id)?.lengthS ?? SCRIPT_S, [scripts.data]);
  const go = (take: Take | undefined) => take && changeAddress({ take: take.id });
  // A take that rolls stays in sight once it is stopped, wherever one has been meanwhile.
  const rolling = current?.status === 'rolling' ? current.id : null;
  useEffect(() => {
    if (rolling !== null && search.get('take') !== rolling) changeAddress({ take: rolling });
  }, [rolling, search, changeAddress]);
  return (
    <Loaded of={[takesQuery, stations, scripts, chains, items, plan, preflight]}>
      {() => {
        if (!current) return <Empty>There is nothing to record yet. Make slates in Plan, then come back here with the phone.</Empty>;
        const at = log.takes.indexOf(current);
        const byId = new Map(items.data!.map((item) => [item.id, item]));
        const station = stations.data!.find((each) => each.id === current.condition.station);
        const inTake = chains.data!.filter((chain) => candidatesOf(current).includes(chain.id));
        const ticked = new Set(preflight.data!.map((tick) => tick.key));
        const planMin = planTime(log.takes, plan.data!, lengthS).totalS / 60;
        const turn = ladderTurn(plan.data!.design, log.takes, current);
        // The other passage of a rung comes before the next rung.
        const next = turn?.other?.status === 'planned' ? turn.other : nextTake(log.takes, current);
        const kit = Object.fromEntries(
          current.setups.flatMap((setup) => {
            const chain = chains.data!.find((each) => each.id === setup.candidateId);
            return chain ? [[setup.id, kitGains(chain, byId)]] : [];
          }),
        );
        const gains = startGains(log.takes, current, kit);
        const acting = { take: current, next, controls: plan.data!.controls, gains, log, onHold: () => go(current), onNext: () => go(next) };
        const marksM = pegsOf(plan.data!);
        const nav = <FieldNav view={view} guest={guest} onView={(to) => changeAddress({ view: to === 'runner' ? null : to })} />;
        if (view === 'devices')
          return (
            <>
              {nav}
              <DevicesView trialId={trialId} guest={guest} />
            </>
          );
        if (view === 'record')
          return (
            <>
              {nav}
              <RecordView key={current.trialId} chains={chains.data!.filter(({ candidate }) => candidate)} acting={acting} />
            </>
          );
        if (view === 'lines')
          return (
            <>
              {nav}
              <LinesView trialId={trialId} log={log} />
            </>
          );
        if (view === 'phones')
          return (
            <>
              {nav}
              <PhonesView trialId={trialId} />
            </>
          );
        if (view === 'walk')
          return (
            <div className="field">
              {nav}
              <Alarms trialId={trialId} rolling={current.status === 'rolling'} />
              <RecordStrip />
              <WalkView chains={inTake} marksM={marksM} onStep={(step) => go(log.takes[at + step])} {...acting} />
              <WalkSide take={current} chains={inTake} log={log} onPress={(press) => void log.write({ kind: 'walk', takeId: current.id, press })} />
            </div>
          );
        return (
          <div className="field">
            {nav}
            <Alarms trialId={trialId} rolling={current.status === 'rolling'} />
            <Runner
              key={current.id}
              {...acting}
              chains={inTake}
              plan={plan.data!}
              turn={turn}
              script={scripts.data!.find((each) => each.id === current.condition.script)}
              cautions={[...(station ? stationCautions(station) : []), ...inTake.flatMap((chain) => chainCautions(chain, byId))]}
              unchecked={openChecks(chains.data!, candidatesOf(current), byId, planMin, ticked)}
              onStep={(step) => go(log.takes[at + step])}
              onRedo={() => {
                const newTakeId = newId();
                void log.write({ kind: 'redo', takeId: current.id, newTakeId }).then(() => changeAddress({ take: newTakeId }));
              }}
            />
            <div className="field-side">
              <RecordStrip />
              <TakeNotes key={current.id} take={current} chains={inTake} gains={gains} log={log} />
              <Slates takes={log.takes} current={current} onChoose={go}>
                <DayLeft takes={log.takes} current={current} plan={plan.data!} lengthS={lengthS} log={log} />
              </Slates>
            </div>
          </div>
        );
      }}
    </Loaded>
  );
}

/** Distances that are pegged out: those that the plan varies; where it only says "walk", all whose metres it knows. */
function pegsOf({ factors }: Pick<Plan, 'factors'>): number[] {
  const levels = factors.find(({ kind }) => kind === 'distance')?.levels ?? [];
  const metres = (of: typeof levels) => of.flatMap(({ value }) => value ?? []);
  const varied = metres(levels.filter(({ ticked }) => ticked));
  return varied.length > 1 ? varied : metres(levels);
}
