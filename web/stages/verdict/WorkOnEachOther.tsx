import type { Effects } from '@marvet/core/decide/effects/effects';
import { type EffectWords, togetherText } from '@marvet/core/decide/effects/sayEffects';
import type { TogetherOf } from '@marvet/core/decide/effects/together';
import type { Criterion } from '@marvet/core/domain/criterion';
import { X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useTogether } from './useTogether.ts';

interface Props {
  effects: Effects;
  criterion: Criterion;
  words: EffectWords;
}

/** Whether factors work on each other, as a windscreen that helps one microphone more than another: asked about pair by pair. */
export function WorkOnEachOther({ effects: { terms, together }, criterion, words }: Props) {
  const { change } = useTogether();
  const kept = together.map((each): TogetherOf => each.terms);
  const nameOf = ([one, other]: TogetherOf) => `${words.term(one)} with ${words.term(other)}`;
  const pairs = terms.flatMap(({ term: one }, at) => terms.slice(at + 1).map(({ term: other }): TogetherOf => [one, other]));
  const free = pairs.filter(([one, other]) => !kept.some((pair) => pair.includes(one) && pair.includes(other)));
  if (pairs.length === 0) return null;
  return (
    <section className="mt-3" aria-label="Which work on each other">
      <div className="row-line">
        <h3 className="h6 mb-0">Which work on each other</h3>
        {free.length > 0 && (
          <Form.Select
            size="sm"
            className="w-auto no-print"
            aria-label="Ask about two together"
            value=""
            onChange={(event) => {
              const pair = free[Number(event.target.value)];
              if (pair) change([...kept, pair]);
            }}
          >
            <option value="">ask about two…</option>
            {free.map((pair, at) => (
              <option key={nameOf(pair)} value={at}>
                {nameOf(pair)}
              </option>
            ))}
          </Form.Select>
        )}
      </div>
      {together.length === 0 && <p className="small soft mb-0">Asked about none: each is taken to do the same whatever the others are.</p>}
      <ul className="mb-0 ps-3">
        {together.map((each) => (
          <li key={nameOf(each.terms)}>
            <b>{nameOf(each.terms)}.</b> {togetherText(each, criterion, words)} <span className="soft">It explains {Math.round(100 * each.share)} % alone.</span>
            <Button
              size="sm"
              variant="plain"
              className="icon no-print"
              aria-label={`No longer ask about ${nameOf(each.terms)}`}
              onClick={() => change(kept.filter((pair) => pair !== each.terms))}
            >
              <X size={12} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
