import { isPaired, type Round } from '@marvet/core/domain/round';
import { LONGEST_WHOLE_S } from '@marvet/core/listen/clipForm';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useAddAwayMutation, useReadAnswersMutation } from '../../data/judging.ts';
import { durationText } from '../../parts/durationText.ts';
import { useNotice } from '../../parts/notices.tsx';
import { Trouble } from '../../parts/states.tsx';

/** Pages to send to people who listen where they are, and the way back for their answers. */
export function AwayPages({ trialId, round }: { trialId: string; round: Round }) {
  const [add, { error: notMade, isLoading }] = useAddAwayMutation();
  const [readIn, { error: notRead, isLoading: reading }] = useReadAnswersMutation();
  const [name, setName] = useState('');
  const tell = useNotice();
  if (isPaired(round.kind)) return null;
  const read = async (file: File) => {
    const { data } = await readIn({ trialId, roundId: round.id, answers: await file.text() });
    if (data) tell(`The answers of ${data.name} are in`);
  };
  return (
    <details className="mt-3">
      <summary>Somebody who is not here</summary>
      <p className="small soft mt-2 mb-2">
        They get a ZIP with a page that opens from any folder, without Marvet and without a network, and the clips one after the other as sound, of each its first{' '}
        {durationText(LONGEST_WHOLE_S)} at most. Names are locked in the page. They listen, judge and save a small file; read it in here. Once it is in you get a key that opens the
        names on their page. What is sent cannot be called back.
      </p>
      <Form
        className="row-line"
        onSubmit={(event) => {
          event.preventDefault();
          void add({ trialId, roundId: round.id, name }).then(({ data }) => data && setName(''));
        }}
      >
        <Form.Control
          className="grow w-auto"
          aria-label="Who listens elsewhere"
          placeholder="who listens elsewhere"
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" variant="outline" disabled={!name.trim() || isLoading}>
          Make a page for them
        </Button>
        <label className={`btn btn-outline ${reading ? 'disabled' : ''}`}>
          Read answers in
          <input
            type="file"
            className="visually-hidden"
            accept=".json,application/json"
            aria-label="File of answers"
            disabled={reading}
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              event.target.value = '';
              if (file) void read(file);
            }}
          />
        </label>
      </Form>
      <Trouble error={notMade ?? notRead} />
    </details>
  );
}
