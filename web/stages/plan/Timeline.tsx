import type { DayEntry } from '@marvet/core/plan/day/schedule';
import { conditionWords, levelLabel, TOLD } from '@marvet/core/plan/levelWords';
import { clockText } from '../../parts/dateText.ts';
import { durationText } from '../../parts/durationText.ts';
import { Sheet } from '../../parts/states.tsx';
import { factorName, type PlanPartProps } from './planPart.ts';
import { SetupTapes } from './SetupTapes.tsx';

/** The day as it will go, a line for each change, take, break and change of batteries. */
export function Timeline({ plan, worked, chains }: PlanPartProps) {
  const day = worked?.day;
  if (!worked || !day) return null;
  const dark = new Set(day.inTheDark);
  const says = (entry: DayEntry) => {
    const take = worked.built.takes[entry.takeIndex];
    if (entry.kind === 'break') return 'Break';
    if (entry.kind === 'batteries') return `Batteries: ${entry.chainIds.map((id) => chains.find((chain) => chain.id === id)?.name ?? '').join(', ')}`;
    if (entry.kind === 'change')
      return entry.changed.includes('station')
        ? `To ${levelLabel(plan, 'station', take?.condition.station ?? '')}`
        : `Change ${entry.changed.map((kind) => factorName(plan, kind)).join(', ')}`;
    const words = take ? conditionWords(plan, take.condition, TOLD.slice(1)) : [];
    return `Take ${entry.takeIndex + 1}: ${words.join(', ')}`;
  };
  return (
    <Sheet title="The day">
      <section className="sheet-scroll timeline-scroll" tabIndex={0} aria-label="The day, line by line">
        <table className="plain timeline">
          <thead>
            <tr>
              <th>From</th>
              <th>What</th>
              <th className="num">Length</th>
              <th>Candidates</th>
            </tr>
          </thead>
          <tbody>
            {day.entries.map((entry) => (
              <tr key={`${entry.kind} ${entry.startsAtMs}`} className={`entry-${entry.kind} ${entry.changed.includes('station') ? 'new-station' : ''}`}>
                <td className="mono">{clockText(entry.startsAtMs)}</td>
                <td>
                  {says(entry)} {entry.kind === 'take' && dark.has(entry.takeIndex) && <span className="alarm">in the dark</span>}
                </td>
                <td className="num small">{durationText((entry.endsAtMs - entry.startsAtMs) / 1000)}</td>
                <td>{entry.kind === 'take' && <SetupTapes setups={worked.built.takes[entry.takeIndex]?.setups ?? []} chains={chains} plan={plan} width={30} />}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </Sheet>
  );
}
