import { runningTimes } from '@marvet/core/chain/burden';
import { cautionTitle, chainCautions, distinctCautions, stationCautions } from '@marvet/core/domain/caution';
import { EXTRA_KINDS } from '@marvet/core/domain/factor';
import { schedule } from '@marvet/core/plan/day/schedule';
import { newFactor } from '@marvet/core/plan/followRecords';
import { runSheet } from '@marvet/core/plan/runSheet';
import { planTime } from '@marvet/core/plan/time';
import { Printer } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useChainsQuery, useItemsQuery, useScriptsQuery, useStationsQuery } from '../../data/records.ts';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { useTrialQuery } from '../../data/trials.ts';
import { usePlanQuery, useTakesQuery } from '../../data/work.ts';
import { clockText, dateText } from '../../parts/dateText.ts';
import { durationText } from '../../parts/durationText.ts';
import { PickTape } from '../../parts/PickTape.tsx';
import { Empty, Loaded } from '../../parts/states.tsx';

/** The run sheet as it is printed: takes in order, what to change before each, cautions on top. */
export default function RunSheet() {
  const trialId = useTrialId();
  const trial = useTrialQuery(trialId);
  const takes = useTakesQuery(trialId);
  const plan = usePlanQuery(trialId);
  const stations = useStationsQuery(trialId);
  const scripts = useScriptsQuery(trialId);
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const words = useTrialWords(trialId);
  return (
    <Loaded of={[trial, takes, plan, stations, scripts, chains, items]}>
      {() => {
        const rows = runSheet(takes.data!, {
          label: words.label,
          letters: (id) => words.chains.get(id)?.tape.letters ?? '??',
          scriptText: (id) => scripts.data!.find((script) => script.id === id)?.text ?? '',
        });
        if (rows.length === 0) return <Empty>There are no slates yet. Make them in Plan.</Empty>;
        const { startsAtMs } = plan.data!.day;
        const lengthS = (id: string) => scripts.data!.find((script) => script.id === id)?.lengthS ?? 10;
        const day =
          startsAtMs === null ? null : schedule(takes.data!, plan.data!, startsAtMs, { stations: stations.data!, lengthS, runningTimeH: runningTimes(chains.data!, items.data!) });
        const starts = day?.entries.filter((entry) => entry.kind === 'take').map((entry) => clockText(entry.startsAtMs)) ?? null;
        const others = EXTRA_KINDS.filter((kind) => rows.some((row) => row.others.some((other) => other.kind === kind)));
        const time = planTime(takes.data!, plan.data!, lengthS);
        const byId = new Map(items.data!.map((item) => [item.id, item]));
        const cautions = distinctCautions([...stations.data!.flatMap(stationCautions), ...chains.data!.flatMap((chain) => chainCautions(chain, byId))]);
        return (
          <section className="sheet run-sheet" aria-label="Run sheet">
            <header>
              <div>
                <h2>{trial.data!.name}: run sheet</h2>
                <div className="small soft">
                  {trial.data!.question} {rows.length} takes, about {durationText(time.totalS)}.
                  {day && startsAtMs !== null && ` ${dateText(startsAtMs)}, ${clockText(startsAtMs)} to ${clockText(day.finishesAtMs)}.`}
                </div>
              </div>
              <span className="row-line no-print">
                <Link className="btn btn-outline" to="../slates" relative="path">
                  Slates
                </Link>
                <a className="btn btn-outline" href={`/api/trials/${trialId}/plan/run-sheet.csv`} download>
                  CSV
                </a>
                {day && (
                  <a className="btn btn-outline" href={`/api/trials/${trialId}/plan/day.ics`} download>
                    Calendar
                  </a>
                )}
                <Button onClick={() => window.print()}>
                  <Printer size={16} aria-hidden /> Print
                </Button>
              </span>
            </header>
            <ul className="sheet-cautions small">
              {cautions.map((caution) => (
                <li key={caution.id}>
                  <b>{cautionTitle(caution)}.</b> {caution.text}
                </li>
              ))}
            </ul>
            {plan.data!.controls.length > 0 && <p className="small">Held: {plan.data!.controls.map((control) => `${control.name}: ${control.value}`).join('; ')}.</p>}
            <table className="plain">
              <thead>
                <tr>
                  <th>Slate</th>
                  <th className="num">{starts ? 'At' : 'After'}</th>
                  <th>Station</th>
                  <th>Distance</th>
                  <th>Windscreen</th>
                  {others.map((kind) => (
                    <th key={kind}>{newFactor(kind).name}</th>
                  ))}
                  <th>Script</th>
                  <th>Candidates</th>
                  <th className="print-wide">Done, remarks</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row, index) => (
                  <tr key={row.takeId} className={row.changes.includes('station') ? 'new-station' : ''}>
                    <td className="mono fw-bold fs-5">{row.slate}</td>
                    <td className="num small" data-label={starts ? 'At' : 'After'}>
                      {starts ? starts[index] : durationText(time.takes[index]?.startS ?? 0)}
                    </td>
                    <td className={row.changes.includes('station') ? 'fw-bold' : ''}>{row.station}</td>
                    <td className={row.changes.includes('distance') ? 'fw-bold' : ''}>{row.distance}</td>
                    <td className={row.changes.includes('windscreen') ? 'fw-bold' : ''}>{row.windscreen}</td>
                    {others.map((kind) => (
                      <td key={kind} className={row.changes.includes(kind) ? 'fw-bold' : ''}>
                        {row.others.find((other) => other.kind === kind)?.label}
                      </td>
                    ))}
                    <td className={row.changes.includes('script') ? 'fw-bold' : ''}>{row.script}</td>
                    <td className="tapes">
                      {takes.data![index]!.setups.map((setup) => {
                        const chain = words.chains.get(setup.candidateId);
                        return chain ? <PickTape key={setup.id} take={takes.data![index]!} setup={setup} chain={chain} levels={words.setup(setup)} width={38} /> : null;
                      })}
                    </td>
                    <td className="write-line" />
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        );
      }}
    </Loaded>
  );
}
