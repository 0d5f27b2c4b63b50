import type { Design } from '@marvet/core/domain/plan';
import { STARTING_POINTS, type StartingPointId } from '@marvet/core/domain/startingPoint';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { useStartFromMutation } from '../../data/records.ts';
import { useNotice } from '../../parts/notices.tsx';
import { Trouble } from '../../parts/states.tsx';

const DESIGN_NAMES: Record<Design['kind'], string> = {
  full: 'the full matrix',
  pairs: 'pairs covered',
  effects: 'effects kept',
  'one change': 'one change at a time',
  ladder: 'a ladder',
};

/** Common questions to start from, each with what it sets and why; all of it can be changed afterwards. */
export function StartingPoints({ trialId, replaces, onClose }: { trialId: string; replaces: number; onClose: () => void }) {
  const [chosen, setChosen] = useState<StartingPointId>('any');
  const [start, { error, isLoading }] = useStartFromMutation();
  const tell = useNotice();
  const point = STARTING_POINTS.find((each) => each.id === chosen);
  return (
    <Modal show onHide={onClose} size="lg" scrollable aria-labelledby="starting-title">
      <Modal.Header closeButton>
        <Modal.Title id="starting-title">Start from a common question</Modal.Title>
      </Modal.Header>
      <Modal.Body className="starting">
        <div role="radiogroup" aria-label="Question" className="designs">
          {STARTING_POINTS.map(({ id, name, question }) => (
            <label key={id} className={`design ${id === chosen ? 'chosen' : ''}`}>
              <input type="radio" name="starting-point" checked={id === chosen} onChange={() => setChosen(id)} />
              <span>
                <b>{name}</b>
                <span className="d-block small soft">{question}</span>
              </span>
            </label>
          ))}
        </div>
        {point && (
          <div className="stack">
            <p className="mb-0">{point.why}</p>
            <div>
              <h3>Criteria</h3>
              <table className="plain">
                <tbody>
                  {point.criteria.map((criterion) => (
                    <tr key={criterion.name}>
                      <td>{criterion.name}</td>
                      <td className="soft small">{criterion.kind}</td>
                      <td className="num">{criterion.weight}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
            <div className="small">
              {point.factors.length > 0 && (
                <>
                  <b>Varied</b>: {point.factors.map(({ kind, labels }) => `${kind} (${labels.join(', ')})`).join('; ')}.{' '}
                </>
              )}
              {point.scripts.length > 0 && (
                <>
                  <b>Scripts</b> besides the usual ones: {point.scripts.map((script) => script.name).join(', ')}.{' '}
                </>
              )}
              <b>Design</b>: {DESIGN_NAMES[point.design]}.
            </div>
          </div>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Trouble error={error} />
        {replaces > 0 && <span className="small soft grow">The {replaces} criteria that there are go to the bin; scripts and levels stay.</span>}
        <Button variant="outline" onClick={onClose}>
          Cancel
        </Button>
        <Button
          disabled={isLoading}
          onClick={() =>
            void start({ trialId, id: chosen }).then(({ error: failed }) => {
              if (failed) return;
              tell(`Started from “${point?.name}”. Everything can be changed.`);
              onClose();
            })
          }
        >
          Start from this
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
