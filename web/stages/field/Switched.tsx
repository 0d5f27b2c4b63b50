import type { Chain } from '@marvet/core/domain/chain';
import type { Take } from '@marvet/core/domain/take';
import { X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { TrialWords } from '../../data/trialData.ts';
import { TapeMark } from '../../parts/TapeMark.tsx';
import type { FieldState } from './useFieldLog.ts';

/** What was switched in a take, each with its moment; the last switch can be taken back. */
export function Switched({ take, chains, words, log }: { take: Take; chains: readonly Chain[]; words: TrialWords; log: FieldState }) {
  const moments = [...new Set(take.setups.flatMap(({ sinceMs }) => sinceMs ?? []))].sort((a, b) => b - a);
  if (moments.length === 0) return null;
  return (
    <ol className="break-ups" aria-label="Switched in this take, the latest first">
      {moments.map((sinceMs, index) => {
        const own = take.setups.filter((setup) => setup.sinceMs === sinceMs);
        return (
          <li key={sinceMs}>
            <span className="mono small soft">{take.startedAtMs === null ? '' : `${Math.max(0, Math.round((sinceMs - take.startedAtMs) / 1000))} s`}</span>
            {own.map((setup) => {
              const chain = chains.find(({ id }) => id === setup.candidateId);
              return chain && <TapeMark key={setup.id} tape={chain.tape} name={chain.name} width={36} />;
            })}
            <span className="grow">{[...new Set(own.map((setup) => words.setup(setup)))].join('; ')}</span>
            {index === 0 && (
              <Button
                size="sm"
                variant="plain"
                className="icon"
                aria-label="Take the last switch back"
                onClick={() => void log.write({ kind: 'unswitch', takeId: take.id, setupIds: own.map(({ id }) => id) })}
              >
                <X size={15} aria-hidden />
              </Button>
            )}
          </li>
        );
      })}
    </ol>
  );
}
