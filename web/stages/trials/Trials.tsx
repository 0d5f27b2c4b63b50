import type { Trial } from '@marvet/core/domain/trial';
import { Copy, Download, RotateCcw, Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, Navigate, useNavigate } from 'react-router';
import { useWhoAmIQuery } from '../../data/door.ts';
import { useAddTrialMutation, useBinTrialMutation, useCopyTrialMutation, useRestoreTrialMutation, useTrialsQuery } from '../../data/trials.ts';
import { Away } from '../../parts/Away.tsx';
import { dateText } from '../../parts/dateText.ts';
import { FileDrop } from '../../parts/FileDrop.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { RailFoot } from '../../parts/RailFoot.tsx';
import { Empty, Loaded, Sheet, Trouble } from '../../parts/states.tsx';
import { useTold } from '../../parts/useTold.ts';
import { BringIn } from './BringIn.tsx';
import { CopyOfAll, Storage, Troubles } from './Storage.tsx';

/** All trials: open, make, copy, bin, bring back. */
export default function Trials() {
  const query = useTrialsQuery();
  const guest = useWhoAmIQuery().data?.guest;
  const present = query.data?.filter((trial) => trial.binnedAtMs === null) ?? [];
  const binned = query.data?.filter((trial) => trial.binnedAtMs !== null) ?? [];
  if (guest) return <Navigate to={`/trials/${guest.trialId}/field`} replace />;
  return (
    <main className="front">
      <div className="row-line apart">
        <div>
          <h1>Marvet</h1>
          <div className="soft">Location tests of microphones and wireless chains, from a question to a verdict.</div>
        </div>
        <RailFoot />
      </div>
      <Away />
      <Troubles />
      <div className="begins">
        <NewTrial />
        <FromRecordings />
      </div>
      <Loaded of={[query]}>
        {() => (
          <>
            <Sheet title="Trials" aside={<BringIn />}>
              {present.length === 0 ? (
                <Empty>No trial yet. Write down what is to be decided, or drop recordings, above. The demo comes back with the next start in an empty data folder.</Empty>
              ) : (
                <div className="sheet-scroll">
                  <table className="plain">
                    <thead>
                      <tr>
                        <th>Trial</th>
                        <th>Question</th>
                        <th className="num">Takes</th>
                        <th className="num">Listeners</th>
                        <th>
                          <span className="visually-hidden">Actions</span>
                        </th>
                      </tr>
                    </thead>
                    <tbody>
                      {present.map((trial) => (
                        <TrialRow key={trial.id} trial={trial} />
                      ))}
                    </tbody>
                  </table>
                </div>
              )}
            </Sheet>
            {binned.length > 0 && (
              <Sheet title="Bin">
                <table className="plain">
                  <tbody>
                    {binned.map((trial) => (
                      <BinnedRow key={trial.id} trial={trial} />
                    ))}
                  </tbody>
                </table>
              </Sheet>
            )}
            <CopyOfAll />
            <Storage />
          </>
        )}
      </Loaded>
    </main>
  );
}

function NewTrial() {
  const [question, setQuestion] = useState('');
  const [add, { error, isLoading }] = useAddTrialMutation();
  const navigate = useNavigate();
  const submit = async () => {
    const text = question.trim();
    const { data } = await add({
      name: text
        .split(/\s+/)
        .slice(0, 5)
        .join(' ')
        .replace(/[?.,]+$/, ''),
      question: text,
    });
    if (data) navigate(`/trials/${data.id}/question`);
  };
  return (
    <Form
      className="sheet"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <Form.Label htmlFor="new-question">What is to be decided?</Form.Label>
      <div className="row-line">
        <Form.Control
          id="new-question"
          className="grow w-auto"
          maxLength={300}
          value={question}
          onChange={(event) => setQuestion(event.target.value)}
          placeholder="Which lavalier hides under a wool jumper?"
        />
        <Button type="submit" disabled={!question.trim() || isLoading}>
          New trial
        </Button>
      </div>
      <div className="small soft mt-2">Criteria, kit, plan and takes follow from it.</div>
      <Trouble error={error} />
    </Form>
  );
}

/** A trial that begins with recordings that are there already; the question, the kit and the plan may come later, or never. */
function FromRecordings() {
  const [add, { error }] = useAddTrialMutation();
  const navigate = useNavigate();
  const begin = async (files: File[]) => {
    const { data } = await add({ name: `Recordings of ${dateText(Date.now())}` });
    if (!data) return;
    const { uploadQueueOf } = await import('../../data/uploadQueue.ts');
    uploadQueueOf(data.id).add(files);
    navigate(`/trials/${data.id}/takes?view=begin`);
  };
  return (
    <div className="sheet">
      <h2 className="form-label fw-normal">Or begin with recordings</h2>
      <FileDrop label="Begin with recordings" said="Drop what you have, from any recorders. Or" onFiles={(files) => void begin(files)} />
      <Trouble error={error} />
    </div>
  );
}

function TrialRow({ trial }: { trial: Trial }) {
  const [copy] = useCopyTrialMutation();
  const [bin] = useBinTrialMutation();
  const [restore] = useRestoreTrialMutation();
  const tell = useNotice();
  const told = useTold();
  const { progress } = trial;
  return (
    <tr>
      <td>
        <Link to={`/trials/${trial.id}`} className="fw-bold">
          {trial.name}
        </Link>
        {trial.sample && <div className="small soft">Sample data</div>}
      </td>
      <td>{trial.question}</td>
      <td className="num">{progress.planned ? `${progress.done}/${progress.planned}` : ''}</td>
      <td className="num">{progress.listeners || ''}</td>
      <td className="text-end text-nowrap">
        <Button
          size="sm"
          variant="plain"
          onClick={() => void told(copy(trial.id)).then(({ data }) => data && tell(`${data.name} was made, without takes`))}
          aria-label={`Copy ${trial.name}`}
          title="Copy without takes"
        >
          <Copy size={15} aria-hidden />
        </Button>
        <Button
          size="sm"
          variant="plain"
          aria-label={`Take all of ${trial.name} out`}
          title="Take all of it out, as one file: records, figures and sound"
          onClick={() => window.location.assign(`/api/trials/${trial.id}/archive.zip`)}
        >
          <Download size={15} aria-hidden />
        </Button>
        <Button
          size="sm"
          variant="plain"
          aria-label={`Delete ${trial.name}`}
          title="Put into the bin"
          onClick={() => void told(bin(trial.id)).then(({ error }) => !error && tell(`${trial.name} is in the bin`, () => void told(restore(trial.id))))}
        >
          <Trash2 size={15} aria-hidden />
        </Button>
      </td>
    </tr>
  );
}

function BinnedRow({ trial }: { trial: Trial }) {
  const [restore] = useRestoreTrialMutation();
  const told = useTold();
  return (
    <tr>
      <td className="fw-bold">{trial.name}</td>
      <td className="soft">{trial.question}</td>
      <td className="text-end">
        <Button size="sm" variant="outline" onClick={() => void told(restore(trial.id))}>
          <RotateCcw size={14} aria-hidden /> Bring back
        </Button>
      </td>
    </tr>
  );
}
