import { type RecordingRow, TABLE_FIGURES } from '@marvet/core/contract/recordings';
import type { Criterion } from '@marvet/core/domain/criterion';
import { type HiddenCheck, isOnCriteria, isPaired, type Round, type RoundKind, roundTroubles } from '@marvet/core/domain/round';
import { isSpoiled, slateLabel, type Take } from '@marvet/core/domain/take';
import { compareTakes } from '@marvet/core/fair/compare';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { useAddRoundMutation } from '../../data/judging.ts';
import { useAppSelector } from '../../data/store.ts';
import { comparedOf, placed, useTakesById, useTrialWords } from '../../data/trialData.ts';
import { useFilesQuery } from '../../data/work.ts';
import { fairSentence } from '../../parts/fairSentence.ts';
import { Field, KeptNumber } from '../../parts/fields.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { HiddenChecks } from './HiddenChecks.tsx';
import { HowJudged } from './HowJudged.tsx';
import { KIND_WORDS } from './kindWords.ts';

interface NewRoundProps {
  trialId: string;
  criteria: Criterion[];
  recordings: RecordingRow[];
  takes: Take[];
  chosen: string[];
  number: number;
}

const LOUDNESS = TABLE_FIGURES.indexOf('loudness.integratedLufs');

/** What a round is called: what is heard, and how where it gets no points. */
const titleOf = (heard: string, kind: RoundKind) => `${heard}${kind === 'scores' ? '' : `: ${KIND_WORDS[kind]}`}`.slice(0, 120);

/** A new round: all candidates of one take, or the takes of the tray; on which criteria; how loud. */
export function NewRound({ trialId, criteria, recordings, takes, chosen, number }: NewRoundProps) {
  const words = useTrialWords(trialId);
  const navigate = useNavigate();
  const underTest = useAppSelector((state) => state.tray.underTest);
  const [add, { error, isLoading }] = useAddRoundMutation();
  const listened = criteria.filter((criterion) => criterion.kind === 'listened');
  const [takeId, setTakeId] = useState('');
  const [ids, setIds] = useState<string[]>(chosen);
  const [criterionIds, setCriterionIds] = useState(() => listened.map((criterion) => criterion.id));
  const [kind, setKind] = useState<RoundKind>('scores');
  const [comparisons, setComparisons] = useState<number | null>(null);
  const [checks, setChecks] = useState<HiddenCheck[]>([]);
  const [steadyWeighs, setSteadyWeighs] = useState(false);
  const [opens, setOpens] = useState<Round['opens']>('done');
  const [targetLufs, setTarget] = useState(-23);
  const [ceilingDbtp, setCeiling] = useState(-1);
  const byId = useTakesById(trialId);
  const { data: files } = useFilesQuery(trialId);
  const measured = useMemo(() => recordings.filter((recording) => recording.setupId && recording.table?.[LOUDNESS] != null), [recordings]);
  const usable = useMemo(() => {
    const ofTake = new Map<string | null, number>();
    for (const { takeId: id } of measured) ofTake.set(id, (ofTake.get(id) ?? 0) + 1);
    return takes.filter((take) => !isSpoiled(take) && (ofTake.get(take.id) ?? 0) >= 2);
  }, [takes, measured]);
  const offered = takeId ? measured.filter((recording) => recording.takeId === takeId) : measured.filter((recording) => chosen.includes(recording.id));
  const picked = offered.filter((recording) => ids.includes(recording.id));
  const lossyFiles = new Set((files ?? []).filter(({ format }) => format?.lossy).map(({ id }) => id));
  const lossy = [...new Set(picked.filter(({ fileId }) => lossyFiles.has(fileId)).map(({ fileName }) => fileName))];
  const compared = picked.flatMap((recording) => {
    const { take, setup } = placed(recording, byId, words.chains);
    return take && setup ? [comparedOf(take, setup)] : [];
  });
  const comparison = compareTakes(compared, underTest);
  const { answer, why } = fairSentence(comparison, underTest, {
    label: words.label,
    letters: (id) => words.chains.get(id)?.tape.letters ?? '??',
    slate: (place) => slateLabel(byId.get(compared[place]?.takeId ?? '')!),
  });
  const onCriteria = isOnCriteria(kind);
  const hidden = kind === 'scores' ? checks : [];
  const weighs = steadyWeighs && hidden.includes('again');
  const [trouble] = picked.length < 2 ? [] : roundTroubles({ kind, recordings: picked.length, criteria: criterionIds.length, comparisons, checks: hidden, steadyWeighs: weighs });
  const submit = async () => {
    const { data } = await add({
      trialId,
      draft: {
        title: titleOf(
          takeId ? `Take ${slateLabel(byId.get(takeId)!)}` : `Round ${number}, takes ${[...new Set(compared.map((each) => slateLabel(byId.get(each.takeId)!)))].join(', ')}`,
          kind,
        ),
        kind,
        comparisons: isPaired(kind) ? comparisons : null,
        recordingIds: picked.map((recording) => recording.id),
        criterionIds: onCriteria ? criterionIds : [],
        checks: hidden,
        steadyWeighs: weighs,
        opens,
        targetLufs,
        ceilingDbtp,
      },
    });
    if (data) navigate(`/trials/${trialId}/listen`);
  };
  const toggle = (list: string[], id: string) => (list.includes(id) ? list.filter((each) => each !== id) : [...list, id]);
  return (
    <Sheet title="New round">
      <Form
        className="stack"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Field label="Takes" help={chosen.length > 0 && !takeId ? 'From the tray.' : 'All candidates of one take: same words, same moment.'}>
          {(id) => (
            <Form.Select
              id={id}
              value={takeId}
              onChange={(event) => {
                setTakeId(event.target.value);
                setIds(event.target.value ? measured.filter((recording) => recording.takeId === event.target.value).map((recording) => recording.id) : chosen);
              }}
            >
              <option value="">{chosen.length > 0 ? 'those of the tray' : 'Choose a take'}</option>
              {usable.map((take) => (
                <option key={take.id} value={take.id}>
                  {slateLabel(take)}: {words.condition(take)}
                </option>
              ))}
            </Form.Select>
          )}
        </Field>
        {offered.map((recording) => {
          const { chain, take, setup } = placed(recording, byId, words.chains);
          return (
            <Form.Check
              key={recording.id}
              id={`clip-${recording.id}`}
              checked={ids.includes(recording.id)}
              onChange={() => setIds(toggle(ids, recording.id))}
              label={
                <>
                  {chain && <TapeMark tape={chain.tape} name="" />} {chain?.name} {setup && words.setup(setup)} <span className="soft small">{take && `${slateLabel(take)}`}</span>
                </>
              }
            />
          );
        })}
        {lossy.length > 0 && (
          <div className="caution">
            <span>
              {lossy.join(', ')} {lossy.length === 1 ? 'is a lossy file' : 'are lossy files'}: what is heard of noise, air and small differences may be the codec.
            </span>
          </div>
        )}
        {compared.length > 1 && comparison.fairness !== 'fair' && (
          <div className="caution">
            <span>
              <strong>{answer}</strong> {why} {comparison.fairness === 'not fair' && `The scores will say so little about the ${underTest}.`}
            </span>
          </div>
        )}
        <HowJudged kind={kind} comparisons={comparisons} possible={picked.length > 1 && !trouble} onKind={setKind} onComparisons={setComparisons} />
        <fieldset hidden={!onCriteria}>
          <legend className="form-label">Judged on</legend>
          {listened.length === 0 && <div className="small soft">No criterion is listened to. Add one in Question.</div>}
          {listened.map((criterion) => (
            <Form.Check
              key={criterion.id}
              id={`on-${criterion.id}`}
              label={criterion.name}
              checked={criterionIds.includes(criterion.id)}
              onChange={() => setCriterionIds(toggle(criterionIds, criterion.id))}
            />
          ))}
        </fieldset>
        {kind === 'scores' && <HiddenChecks checks={checks} onChecks={setChecks} steadyWeighs={weighs} onSteadyWeighs={setSteadyWeighs} />}
        <Field label="Identities open">
          {(id) => (
            <Form.Select id={id} value={opens} onChange={(event) => setOpens(event.target.value === 'closed' ? 'closed' : 'done')}>
              <option value="done">once each listener is done</option>
              <option value="closed">once I close the round</option>
            </Form.Select>
          )}
        </Field>
        <div className="row-line">
          <KeptNumber label="Matched to, LUFS" min={-40} max={-10} value={targetLufs} onKeep={(value) => setTarget(value ?? -23)} />
          <KeptNumber label="Ceiling, dBTP" min={-12} max={0} value={ceilingDbtp} onKeep={(value) => setCeiling(value ?? -1)} />
        </div>
        <Trouble error={error} />
        {trouble && (
          <p className="small mb-0" role="status">
            {trouble.why}.
          </p>
        )}
        <Button type="submit" disabled={picked.length < 2 || trouble !== undefined || isLoading}>
          Make the round
        </Button>
      </Form>
    </Sheet>
  );
}
