import { zodResolver } from '@hookform/resolvers/zod';
import type { StoredFrame } from '@marvet/core/domain/frame';
import type { Placement } from '@marvet/core/domain/placement';
import type { RigRecord } from '@marvet/core/domain/rigRecord';
import { type Sight, type SightDraft, sightDraftSchema } from '@marvet/core/domain/sight';
import { Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useForm } from 'react-hook-form';
import { usePhotosQuery, useSaveSightMutation, useSightsQuery } from '../../data/records.ts';
import { dateText } from '../../parts/dateText.ts';
import { Field } from '../../parts/fields.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { Empty, Loaded, Sheet, Trouble } from '../../parts/states.tsx';
import { useBin } from '../../parts/useBin.ts';
import { MarkedPhoto } from './MarkedPhoto.tsx';

interface SightsProps {
  trialId: string;
  placement: Placement;
  rigs: readonly RigRecord[];
  rigId: string | null;
  frames: readonly StoredFrame[];
}

/** Whether a placement is seen, as it was answered for each frame: every answer stands, also one that differs from the one before. */
export function Sights({ trialId, placement, rigs, rigId, frames }: SightsProps) {
  const sights = useSightsQuery(trialId);
  return (
    <Sheet title="Seen or not" aside={<span className="small soft">{placement.name}</span>}>
      <Loaded of={[sights]}>
        {() => {
          const own = sights.data!.filter((sight) => sight.placementId === placement.id).sort((a, b) => b.atMs - a.atMs);
          return (
            <div className="stack">
              {own.length === 0 && <Empty>Nobody was asked yet. Show the camera, ask, and write down the answer: the second time it is often another.</Empty>}
              {own.map((sight) => (
                <SightRow key={sight.id} sight={sight} rigs={rigs} frames={frames} />
              ))}
              <Asked key={`${placement.id}/${own.length}`} trialId={trialId} placementId={placement.id} rigId={rigId} frames={frames} last={own[0]} />
            </div>
          );
        }}
      </Loaded>
    </Sheet>
  );
}

function SightRow({ sight, rigs, frames }: { sight: Sight; rigs: readonly RigRecord[]; frames: readonly StoredFrame[] }) {
  const bin = useBin(sight.trialId, 'sight');
  const [save] = useSaveSightMutation();
  const { data: photos } = usePhotosQuery('sight');
  const photo = photos?.find((each) => each.ownerId === sight.id && each.binnedAtMs === null);
  const frame = frames.find(({ id }) => id === sight.frameId);
  const rig = rigs.find(({ id }) => id === sight.rigId);
  const { id, trialId, version, binnedAtMs: _binned, ...draft } = sight;
  return (
    <article className="sight">
      <div className="row-line apart">
        <b className={sight.seen === 'seen, and refused' ? 'bad' : ''}>{sight.seen}</b>
        <Button size="sm" variant="plain" aria-label={`Delete the answer of ${sight.answeredBy}`} onClick={() => bin(id, `The answer of ${sight.answeredBy}`)}>
          <Trash2 size={15} aria-hidden />
        </Button>
      </div>
      <p className="small soft mb-1">
        {sight.askedBy} asked {sight.answeredBy}, {dateText(sight.atMs)}
        {frame && `, ${frame.name}`}
        {rig && `, ${rig.name}`}
        {sight.remark && `: ${sight.remark}`}
      </p>
      {photo && <MarkedPhoto photoId={photo.id} spot={sight.spot} onMark={(spot) => void save({ trialId, from: { id, version }, draft: { ...draft, spot } })} />}
      <Photos ownerKind="sight" ownerId={id} name={`Answer of ${sight.answeredBy}`} />
    </article>
  );
}

interface AskedProps {
  trialId: string;
  placementId: string;
  rigId: string | null;
  frames: readonly StoredFrame[];
  last: Sight | undefined;
}

const SEEN = sightDraftSchema.shape.seen.options;

/** A question put to somebody, and the answer. */
function Asked({ trialId, placementId, rigId, frames, last }: AskedProps) {
  const [save, { error, isLoading }] = useSaveSightMutation();
  const form = useForm<SightDraft>({
    resolver: zodResolver(sightDraftSchema) as never,
    defaultValues: {
      placementId,
      rigId,
      frameId: last?.frameId ?? frames[0]?.id ?? null,
      seen: 'not seen',
      askedBy: last?.askedBy ?? '',
      answeredBy: last?.answeredBy ?? '',
      atMs: Date.now(),
      spot: null,
      remark: '',
    },
  });
  const { errors } = form.formState;
  return (
    <details>
      <summary>Write down an answer</summary>
      <form className="stack mt-2" noValidate onSubmit={(event) => void form.handleSubmit((draft) => save({ trialId, from: null, draft: { ...draft, atMs: Date.now() } }))(event)}>
        <div className="row-line align-items-start">
          <Field label="Who asked" error={errors.askedBy?.message}>
            {(id) => <Form.Control id={id} size="sm" isInvalid={!!errors.askedBy} {...form.register('askedBy')} />}
          </Field>
          <Field label="Who answered" error={errors.answeredBy?.message}>
            {(id) => <Form.Control id={id} size="sm" isInvalid={!!errors.answeredBy} {...form.register('answeredBy')} />}
          </Field>
        </div>
        <div className="row-line align-items-start">
          <Field label="Frame">
            {(id) => (
              <Form.Select id={id} size="sm" {...form.register('frameId', { setValueAs: (value) => value || null })}>
                <option value="">none</option>
                {frames.map((frame) => (
                  <option key={frame.id} value={frame.id}>
                    {frame.name}
                  </option>
                ))}
              </Form.Select>
            )}
          </Field>
          <Field label="Answer">
            {(id) => (
              <Form.Select id={id} size="sm" {...form.register('seen')}>
                {SEEN.map((each) => (
                  <option key={each}>{each}</option>
                ))}
              </Form.Select>
            )}
          </Field>
        </div>
        <Field label="Remarks">{(id) => <Form.Control id={id} size="sm" {...form.register('remark')} />}</Field>
        <Trouble error={error} />
        <div>
          <Button type="submit" size="sm" variant="primary" disabled={isLoading}>
            Keep the answer
          </Button>
        </div>
      </form>
    </details>
  );
}
