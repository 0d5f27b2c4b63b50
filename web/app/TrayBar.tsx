import { FACTOR_KINDS, type FactorKind, type WithinKind } from '@marvet/core/domain/factor';
import { isSpoiled, slateLabel } from '@marvet/core/domain/take';
import { compareTakes } from '@marvet/core/fair/compare';
import { nearestFair } from '@marvet/core/fair/nearestFair';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { X } from 'lucide-react';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { useAppDispatch, useAppSelector } from '../data/store.ts';
import { picked, replaced, type TrayEntry, underTestChosen } from '../data/tray.ts';
import { comparedOf, type TrialWords, useTakesById, useTrialWords } from '../data/trialData.ts';
import { useRecordingsQuery, useTakesQuery } from '../data/work.ts';
import { fairSentence } from '../parts/fairSentence.ts';
import { BlindMark, TapeMark } from '../parts/TapeMark.tsx';

const NOTHING: TrayEntry[] = [];

/** The tray at the foot of every stage; nothing where nothing was picked up. */
export function TrayBar({ trialId }: { trialId: string }) {
  const takes = useTakesById(trialId);
  const all = useAppSelector((state) => state.tray.byTrial[trialId] ?? NOTHING);
  const entries = useMemo(() => all.filter((entry) => takes.get(entry.takeId)?.setups.some((setup) => setup.id === entry.setupId)), [all, takes]);
  return entries.length > 0 && <FilledTray trialId={trialId} entries={entries} />;
}

/** Takes that were picked up, what differs between them, and the way to listening. */
function FilledTray({ trialId, entries }: { trialId: string; entries: TrayEntry[] }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const words = useTrialWords(trialId);
  const takes = useTakesById(trialId);
  const underTest = useAppSelector((state) => state.tray.underTest);
  const { data: recordings } = useRecordingsQuery(trialId);
  const recorded = entries.flatMap((entry) => recordings?.find((each) => each.takeId === entry.takeId && each.setupId === entry.setupId) ?? []);
  const testable = FACTOR_KINDS.filter(
    (kind) =>
      kind === 'candidate' || [...takes.values()].some((take) => take.condition[kind] !== undefined || take.setups.some((setup) => setup.levels[kind as WithinKind] !== undefined)),
  );
  return (
    <section className="tray no-print" aria-label="Tray">
      <div className="tray-takes">
        {entries.map((entry) => {
          const take = takes.get(entry.takeId)!;
          const setup = take.setups.find((each) => each.id === entry.setupId)!;
          const chain = words.chains.get(setup.candidateId);
          const condition = [words.setup(setup), words.condition(take)].filter(Boolean).join(', ');
          return (
            <span className="tray-take" key={setup.id}>
              {chain && <TapeMark tape={chain.tape} name={chain.name} />}
              <b className="mono">{slateLabel(take)}</b> <span title={condition}>{condition}</span>
              <Button
                variant="plain"
                className="icon"
                size="sm"
                aria-label={`Put take ${slateLabel(take)} ${chain?.name ?? ''} back`}
                onClick={() => dispatch(picked({ trialId, entry }))}
              >
                <X size={14} aria-hidden />
              </Button>
            </span>
          );
        })}
      </div>
      <TraySays trialId={trialId} entries={entries} underTest={underTest} words={words} />
      <Form.Select size="sm" aria-label="Factor under test" value={underTest} onChange={(event) => dispatch(underTestChosen(event.target.value as FactorKind))}>
        {testable.map((kind) => (
          <option key={kind} value={kind}>
            tests {kind}
          </option>
        ))}
      </Form.Select>
      {entries.length === 2 && recorded.length === 2 && (
        <Button variant="outline" className="text-nowrap" onClick={() => navigate(`/trials/${trialId}/takes/pair/${recorded.map((each) => each.id).join('/')}`)}>
          Difference
        </Button>
      )}
      <Button
        variant="dark-ink"
        className="text-nowrap"
        disabled={recorded.length < 2 || recorded.length !== entries.length}
        title={recorded.length !== entries.length ? 'Not every take in the tray has a recording' : undefined}
        onClick={() => navigate(`/trials/${trialId}/listen?takes=${recorded.map((each) => each.id).join(',')}`)}
      >
        Listen {recorded.length <= 3 && recorded.map((each, index) => <BlindMark key={each.id} letter={BLIND_LETTERS[index] ?? ''} width={34} />)}
      </Button>
    </section>
  );
}

function TraySays({ trialId, entries, underTest, words }: { trialId: string; entries: TrayEntry[]; underTest: FactorKind; words: TrialWords }) {
  const dispatch = useAppDispatch();
  const takes = useTakesById(trialId);
  const { data: allTakes } = useTakesQuery(trialId);
  const compared = useMemo(
    () =>
      entries.map((entry) => {
        const take = takes.get(entry.takeId)!;
        return comparedOf(take, take.setups.find((setup) => setup.id === entry.setupId)!);
      }),
    [entries, takes],
  );
  const comparison = useMemo(() => compareTakes(compared, underTest), [compared, underTest]);
  const isFair = comparison.fairness === 'fair';
  const usable = useMemo(() => {
    const done = (allTakes ?? []).filter((take) => take.status === 'done' && !isSpoiled(take));
    return done.flatMap((take) => take.setups.map((setup) => comparedOf(take, setup)));
  }, [allTakes]);
  const fair = useMemo(() => (isFair || compared.length < 2 ? null : nearestFair(compared, usable, underTest)), [isFair, compared, usable, underTest]);
  if (entries.length < 2) return <span className="tray-says soft">Pick up another take to see what differs.</span>;
  const slate = (takeId: string | undefined) => slateLabel(takes.get(takeId ?? '') ?? { slate: 0, pass: 1 });
  const { answer, why } = fairSentence(comparison, underTest, {
    label: words.label,
    letters: (id) => words.chains.get(id)?.tape.letters ?? '??',
    slate: (place) => slate(compared[place]?.takeId),
  });
  if (isFair) {
    return (
      <span className="tray-says" role="status">
        <b>{answer}</b> {why}
      </span>
    );
  }
  const swap = fair?.filter((setup) => !compared.includes(setup)).map((setup) => slate(setup.takeId));
  return (
    <div className="tray-says caution" role="status">
      <span className="grow">
        <strong>{answer}</strong> {why} {!fair && 'There is no fair pair among the takes.'}
      </span>
      {fair && (
        <Button
          size="sm"
          variant="outline"
          className="text-nowrap"
          onClick={() => dispatch(replaced({ trialId, entries: fair.map(({ takeId, setupId }) => ({ takeId, setupId })) }))}
        >
          Use {swap?.join(', ')}
        </Button>
      )}
    </div>
  );
}
