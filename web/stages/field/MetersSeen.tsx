import type { Chain } from '@marvet/core/domain/chain';
import { GAIN_STAGES, lastSetups, type MeterSeen, type Take, type TakeSetup } from '@marvet/core/domain/take';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useTrialWords } from '../../data/trialData.ts';
import { StepDial } from '../../parts/StepDial.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import type { FieldState } from './useFieldLog.ts';

/** Where a dial begins: speech that is set as most set it. */
const USUAL = { averageDbfs: -22, peakDbfs: -10 } as const;
const NOT_SEEN: MeterSeen = { averageDbfs: null, peakDbfs: null };

/** Average and peak that the meters showed, by stage, turned in steps of a decibel. */
export function MetersSeen({ take, chains, write }: { take: Take; chains: readonly Chain[]; write: FieldState['write'] }) {
  const words = useTrialWords(take.trialId);
  const [stage, setStage] = useState<(typeof GAIN_STAGES)[number]>('recorder');
  const keep = (setup: TakeSetup, change: Partial<MeterSeen>) =>
    void write((takes) => {
      const seen = (takes.find(({ id }) => id === take.id) ?? take).meters[setup.id]?.[stage] ?? NOT_SEEN;
      return { kind: 'meter', takeId: take.id, setupId: setup.id, stage, ...seen, ...change };
    });
  return (
    <fieldset className="meters-seen">
      <legend className="form-label">Meter seen at the</legend>
      <div className="row-line mb-2">
        {GAIN_STAGES.map((each) => (
          <Button key={each} size="sm" variant={each === stage ? 'dark-ink' : 'outline'} aria-pressed={each === stage} onClick={() => setStage(each)}>
            {each}
          </Button>
        ))}
      </div>
      {lastSetups(take).map((setup) => {
        const chain = chains.find(({ id }) => id === setup.candidateId);
        const name = [chain?.name ?? 'A candidate', words.setup(setup)].filter(Boolean).join(', ');
        const seen = take.meters[setup.id]?.[stage] ?? NOT_SEEN;
        return (
          <div key={setup.id} className="meters-of">
            {chain && <TapeMark tape={chain.tape} name={name} width={44} />}
            {(['averageDbfs', 'peakDbfs'] as const).map((what) => (
              <StepDial
                key={what}
                label={what === 'averageDbfs' ? 'average' : 'peak'}
                name={`${name}, ${what === 'averageDbfs' ? 'average' : 'peak'} at the ${stage}`}
                unit="dBFS"
                value={seen[what]}
                min={-80}
                max={0}
                step={1}
                from={USUAL[what]}
                onKeep={(value) => keep(setup, { [what]: value })}
              />
            ))}
          </div>
        );
      })}
    </fieldset>
  );
}
