import type { FileRow, RecordingRow } from '@marvet/core/contract/recordings';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useSetStereoMutation } from '../../data/work.ts';
import { Trouble } from '../../parts/states.tsx';

/** How the channels of a recording are called. @example channelsText([0, 1]) // "Channels 1 and 2, stereo" */
export const channelsText = (channels: readonly number[]) =>
  channels.length > 1 ? `Channels ${channels.map((channel) => channel + 1).join(' and ')}, stereo` : `Channel ${(channels[0] ?? 0) + 1}`;

interface StereoPairsProps {
  trialId: string;
  file: FileRow;
  recordings: readonly RecordingRow[];
}

/** Which channels of a file are one stereo recording, two by two; said at once, for all files of its recorder if wanted. */
export function StereoPairs({ trialId, file, recordings }: StereoPairsProps) {
  const [set, { error, isLoading }] = useSetStereoMutation();
  const [all, setAll] = useState(false);
  /** As it was asked for; once the server has done it, the recordings say so. */
  const [asked, setAsked] = useState<ReadonlySet<number> | null>(null);
  const pairs = new Set(recordings.flatMap(({ channels: [first = 0, ...others] }) => (others.length > 0 ? [first] : [])));
  const firsts = Array.from({ length: Math.floor(file.format.channels / 2) }, (_, pair) => 2 * pair);
  if (firsts.length === 0) return null;
  const change = async (first: number, stereo: boolean) => {
    const others = [...pairs].filter((each) => each !== first);
    const firstChannels = stereo ? [...others, first] : others;
    setAsked(new Set(firstChannels));
    const { error: refused } = await set({ trialId, fileId: file.id, firstChannels, allOfRecorder: all });
    if (refused) setAsked(null);
  };
  return (
    <fieldset className="stack gap-1" disabled={isLoading}>
      <legend className="visually-hidden">Stereo</legend>
      {firsts.map((first) => (
        <Form.Check
          key={first}
          type="switch"
          id={`stereo-${file.id}-${first}`}
          label={`Channels ${first + 1} and ${first + 2} are one stereo recording`}
          checked={(asked ?? pairs).has(first)}
          onChange={(event) => void change(first, event.target.checked)}
        />
      ))}
      {file.recorder !== null && (
        <Form.Check
          type="checkbox"
          id={`stereo-all-${file.id}`}
          label={`Say so for all files of ${file.recorder} that have as many channels`}
          checked={all}
          onChange={(event) => setAll(event.target.checked)}
        />
      )}
      <Trouble error={error} />
    </fieldset>
  );
}
