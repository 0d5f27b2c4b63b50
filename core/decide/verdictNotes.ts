import { CONDITION_KINDS, NOT_KNOWN } from '../domain/factor.ts';
import { candidatesOf, isSpoiled, slateLabel, type Take } from '../domain/take.ts';
import { isUnplanned, type Usable, type VerdictInput, type VerdictNote } from './usableRecordings.ts';

/** Takes that were done and of which a candidate has no audio. */
export function withoutAudio({ takes, recordings }: VerdictInput): VerdictNote[] {
  const heard = new Set(recordings.map((recording) => recording.setupId));
  // A walk is judged by what was pressed: it needs no audio.
  const silent = takes.filter((take) => take.status === 'done' && !isSpoiled(take) && take.walk.length === 0 && take.setups.some((setup) => !heard.has(setup.id)));
  if (silent.length === 0) return [];
  const all = silent.filter((take) => take.setups.every((setup) => !heard.has(setup.id)));
  const part = silent.filter((take) => !all.includes(take));
  const names = (list: readonly Take[]) => `${list.slice(0, 6).map(slateLabel).join(', ')}${list.length > 6 ? ` and ${list.length - 6} more` : ''}`;
  return [
    ...(all.length > 0 ? [{ kind: 'no audio' as const, text: `Done but without any audio: take ${names(all)}.` }] : []),
    ...(part.length > 0 ? [{ kind: 'no audio' as const, text: `Done but without the audio of some candidates: take ${names(part)}.` }] : []),
  ];
}

/** Whose recordings come from files that left something out, and how many of them. */
export function lossyNotes({ candidates }: VerdictInput, usable: readonly Usable[]): VerdictNote[] {
  const told = candidates.flatMap(({ id, name }) => {
    const own = usable.filter(({ setup }) => setup.candidateId === id);
    const codecs = own.flatMap(({ recording: { lossyCodec } }) => lossyCodec ?? []);
    return codecs.length === 0 ? [] : [`${name} ${codecs.length} of ${own.length} (${[...new Set(codecs)].join(', ')})`];
  });
  if (told.length === 0) return [];
  return [{ kind: 'lossy', text: `From lossy files: ${told.join('; ')}. Their noise, air and small differences say as much of the codec as of the gear.` }];
}

/** What nobody wrote down of takes without a plan, and what that leaves of the comparison. */
export function unplannedNotes(usable: readonly Usable[]): VerdictNote[] {
  const unplanned = usable.filter(({ condition }) => isUnplanned(condition));
  if (unplanned.length === 0) return [];
  const kinds = CONDITION_KINDS.filter((kind) => unplanned.some(({ condition }) => condition[kind] === NOT_KNOWN));
  const takes = [...new Map(unplanned.map(({ take }) => [take.id, take])).values()];
  const inTurn = takes.filter((take) => candidatesOf(take).length === 1);
  const text = `Recorded without a plan: ${kinds.join(', ')} of ${takes.length} ${takes.length === 1 ? 'take is' : 'takes are'} not known, so nobody can say that they were equal for all.`;
  if (inTurn.length === 0) return [{ kind: 'not known', text: `${text} Only what one moment has of several candidates is compared.` }];
  const which = inTurn.length === 1 ? `Take ${slateLabel(inTurn[0] as Take)} has` : `${inTurn.length} of them have`;
  return [{ kind: 'not known', text: `${text} ${which} one candidate alone: another talker, text or place may be all the difference.` }];
}

/** How much of what was recorded anybody listened to. */
export function listeningNotes({ criteria, ratings }: VerdictInput, usable: readonly Usable[]): VerdictNote[] {
  if (!criteria.some((criterion) => criterion.kind === 'listened')) return [];
  const heard = new Set(ratings.map((rating) => rating.recordingId));
  const all = new Set(usable.map(({ key }) => key));
  const listened = new Set(usable.filter(({ recording }) => heard.has(recording.id)).map(({ key }) => key));
  if (listened.size === all.size || listened.size === 0) return [];
  return [{ kind: 'listening', text: `Listening covered ${listened.size} of ${all.size} conditions that were recorded.` }];
}

export function unmeasured(usable: readonly Usable[]): VerdictNote[] {
  const left = usable.filter(({ recording }) => !recording.measured).length;
  return left === 0 ? [] : [{ kind: 'not measured', text: `${left} ${left === 1 ? 'recording has' : 'recordings have'} no figures yet.` }];
}
