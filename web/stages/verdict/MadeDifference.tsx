import type { VerdictView } from '@marvet/core/contract/verdict';
import type { Effects, TermEffect } from '@marvet/core/decide/effects/effects';
import { differenceText, type EffectWords, effectsText, isShown, togetherText, untoldText } from '@marvet/core/decide/effects/sayEffects';
import type { Criterion } from '@marvet/core/domain/criterion';
import { slateLabel } from '@marvet/core/domain/take';
import { signed } from '@marvet/core/measure/catalogue';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useEffectsQuery } from '../../data/judging.ts';
import { useTakesById, useTrialId, useTrialWords } from '../../data/trialData.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { useEffectWords } from './useEffectWords.ts';
import { useTogether } from './useTogether.ts';
import { WorkOnEachOther } from './WorkOnEachOther.tsx';

/** What made the difference in each figure: the candidate, or what else was varied; with its doubt, and what cannot be told. */
export function MadeDifference({ view }: { view: VerdictView }) {
  const query = useEffectsQuery({ trialId: useTrialId(), together: useTogether().asked });
  const [chosen, setChosen] = useState('');
  const told = (query.data ?? []).flatMap((effects) => {
    const criterion = view.criteria.find(({ id }) => id === effects.criterionId);
    return criterion ? [{ criterion, effects }] : [];
  });
  const shown = told.find(({ criterion }) => criterion.id === chosen) ?? told[0];
  return (
    <Sheet
      title="What made the difference"
      aside={
        told.length > 1 && (
          <Form.Select size="sm" className="w-auto" aria-label="Figure" value={shown?.criterion.id} onChange={(event) => setChosen(event.target.value)}>
            {told.map(({ criterion }) => (
              <option key={criterion.id} value={criterion.id}>
                {criterion.name}
              </option>
            ))}
          </Form.Select>
        )
      }
    >
      <Loaded of={[query]}>
        {() => (shown ? <Told criterion={shown.criterion} effects={shown.effects} /> : <p className="soft mb-0">It takes two takes and more to tell what made a difference.</p>)}
      </Loaded>
    </Sheet>
  );
}

/** The same in a sentence a figure, for a page that is printed. */
export function DifferencesTold({ view }: { view: VerdictView }) {
  const query = useEffectsQuery({ trialId: useTrialId(), together: useTogether().asked });
  const words = useEffectWords();
  return (
    <Sheet title="What made the difference">
      <Loaded of={[query]}>
        {() =>
          query.data!.length === 0 ? (
            <p className="soft mb-0">It takes two takes and more to tell what made a difference.</p>
          ) : (
            <dl className="facts small">
              {query.data!.map((effects) => {
                const criterion = view.criteria.find(({ id }) => id === effects.criterionId);
                return (
                  criterion && (
                    <div key={criterion.id} className="fact">
                      <dt>{criterion.name}</dt>
                      <dd className="fw-normal">{[effectsText(effects, criterion, words), ...effects.together.map((each) => togetherText(each, criterion, words))].join(' ')}</dd>
                    </div>
                  )
                );
              })}
            </dl>
          )
        }
      </Loaded>
    </Sheet>
  );
}

function Told({ criterion, effects }: { criterion: Criterion; effects: Effects }) {
  const words = useEffectWords();
  const largest = Math.max(...effects.terms.map(({ most }) => Math.max(most?.estimate ?? 0, most?.high ?? 0)), 1e-9);
  return (
    <>
      <p className="fw-bold mb-2">{effectsText(effects, criterion, words)}</p>
      <section className="sheet-scroll" tabIndex={0} aria-label="Effects">
        <table className="plain">
          <thead>
            <tr>
              <th>What</th>
              <th>Largest difference, 95 of 100</th>
              <th>Between</th>
              <th className="num">Explains alone</th>
            </tr>
          </thead>
          <tbody>
            {effects.terms.map((each) => (
              <TermRow key={each.term} effect={each} criterion={criterion} words={words} largest={largest} />
            ))}
          </tbody>
        </table>
      </section>
      <WorkOnEachOther effects={effects} criterion={criterion} words={words} />
      <Strange effects={effects} />
      <p className="small soft mt-2 mb-0">
        {effects.observations} values of {effects.takes} takes, by least squares; values of one take belong together in every doubt.
        {effects.leftOut > 0 && ` ${effects.leftOut} were left out: part of their condition is not known.`}{' '}
        <Link to="/methods#what-made-the-difference">How this is worked out</Link>
      </p>
    </>
  );
}

function TermRow({ effect, criterion, words, largest }: { effect: TermEffect; criterion: Criterion; words: EffectWords; largest: number }) {
  const { term, most, share, levels } = effect;
  const untold = untoldText(effect, words);
  const at = (value: number) => `${(100 * Math.max(0, value)) / largest}%`;
  return (
    <tr>
      <td>
        <b>{words.term(term)}</b>
        {untold && <div className="small soft">{untold}</div>}
      </td>
      <td>
        {most && (
          <>
            <div className="band sure-band" aria-hidden>
              {most.low !== null && most.high !== null && (
                <span className="doubt" style={{ left: at(most.low), width: `${(100 * (most.high - Math.max(0, most.low))) / largest}%` }} />
              )}
              <span className="tick" style={{ left: at(most.estimate) }} />
            </div>
            <span className="mono small">{differenceText(most, criterion)}</span>
            {!isShown(most) && <span className="small soft"> {most.low === null ? 'too few takes to say how sure' : 'not shown'}</span>}
          </>
        )}
      </td>
      <td className="small" title={levels.map(({ level, estimate }) => `${words.level(term, level)} ${signed(estimate, 1)}`).join(', ')}>
        {most && `${words.level(term, most.levels[0])} over ${words.level(term, most.levels[1])}`}
      </td>
      <td className="num">{Math.round(100 * share)} %</td>
    </tr>
  );
}

/** Takes that the model does not fit: there is mostly a reason, and it stands in their log. */
function Strange({ effects: { strange } }: { effects: Effects }) {
  const trialId = useTrialId();
  const words = useTrialWords(trialId);
  const byId = useTakesById(trialId);
  const told = strange.slice(0, 6).flatMap(({ takeId, candidateId, residual }) => {
    const take = byId.get(takeId);
    return take ? [{ take, name: words.chains.get(candidateId)?.name ?? 'gone', residual }] : [];
  });
  if (told.length === 0) return null;
  return (
    <div className="small mt-2">
      <b>Does not fit:</b>{' '}
      {told.map(({ take, name, residual }) => (
        <span key={`${take.id} ${name}`} className="me-2">
          take {slateLabel(take)}, {name}, {signed(residual, 1)}
          {`${take.note && `: ${take.note}`};`}
        </span>
      ))}{' '}
      {strange.length > told.length && `and ${strange.length - told.length} more. `}
      <span className="soft">Look at what was logged there before they are believed, or spoiled.</span>
    </div>
  );
}
