import type { Chain } from '@marvet/core/domain/chain';
import { GAIN_STAGES, type Gains, type Take } from '@marvet/core/domain/take';
import { useTrialWords } from '../../data/trialData.ts';
import { KeptNumber } from '../../parts/fields.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { MetersSeen } from './MetersSeen.tsx';
import type { FieldState } from './useFieldLog.ts';

/** Wind, noise and the gains of every stage, as read on the day. */
export function FieldReadings({ take, chains, kit, write }: { take: Take; chains: Chain[]; kit: Record<string, Gains>; write: FieldState['write'] }) {
  const words = useTrialWords(take.trialId);
  // The other reading is taken from the log as it stands when the line is written, not as it was last drawn.
  const conditions = (change: { windMs?: number | null; noiseDba?: number | null }) =>
    void write((takes) => {
      const { windMs, noiseDba } = takes.find((other) => other.id === take.id) ?? take;
      return { kind: 'conditions', takeId: take.id, windMs, noiseDba, ...change };
    });
  return (
    <details className="readings" open={take.windMs === null && take.noiseDba === null ? undefined : true}>
      <summary>Wind, noise, gains, meters</summary>
      <div className="readings-conditions">
        <KeptNumber label="Wind, m/s" min={0} max={60} value={take.windMs} onKeep={(windMs) => conditions({ windMs })} />
        <KeptNumber label="Noise, dB A" min={0} max={150} value={take.noiseDba} onKeep={(noiseDba) => conditions({ noiseDba })} />
      </div>
      <table className="plain">
        <thead>
          <tr>
            <th>Gain, dB</th>
            {GAIN_STAGES.map((stage) => (
              <th key={stage}>{stage}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {take.setups.map((setup) => {
            const chain = chains.find((each) => each.id === setup.candidateId);
            if (!chain) return null;
            const name = [chain.name, words.setup(setup)].filter(Boolean).join(', ');
            return (
              <tr key={setup.id}>
                <td>
                  <TapeMark tape={chain.tape} name={name} />
                </td>
                {GAIN_STAGES.map((stage) => (
                  <td key={stage}>
                    <KeptNumber
                      label={`${name}, ${stage} gain, dB`}
                      hideLabel
                      min={-60}
                      max={90}
                      placeholder={kit[setup.id]?.[stage] === undefined ? '' : `${kit[setup.id]?.[stage]} set`}
                      value={take.gains[setup.id]?.[stage] ?? null}
                      onKeep={(gainDb) => void write({ kind: 'gain', takeId: take.id, setupId: setup.id, stage, gainDb })}
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="small soft">What stood in the take before, or in Kit, is noted with the start, unless another gain stands here.</p>
      <MetersSeen take={take} chains={chains} write={write} />
    </details>
  );
}
