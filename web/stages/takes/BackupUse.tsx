import type { RecordingDetail, RecordingRow } from '@marvet/core/contract/recordings';
import type { Backup } from '@marvet/core/domain/recording';
import Button from 'react-bootstrap/Button';
import { useRecordingsQuery, useSwapRecordingsMutation } from '../../data/work.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

/** What a backup is, in short. */
export const backupText = ({ ofChannel, lowerByDb }: Backup) => `backup of channel ${ofChannel + 1}, ${lowerByDb.toFixed(1)} dB lower`;

/** What a backup would save of its main track. */
export function savedText({ ofChannel, clipped, saved }: Backup): string {
  if (clipped === 0) return `Channel ${ofChannel + 1} does not clip: there is nothing that it would save.`;
  const moments = clipped === 1 ? 'moment' : 'moments';
  return `Channel ${ofChannel + 1} clips at ${clipped} ${moments}; ${saved === clipped ? 'all' : saved} of them ${saved === 1 ? 'is' : 'are'} whole on the backup.`;
}

/** A recording that is a backup, or has one: what using it would save, and the way to use it. */
export function BackupUse({ recording }: { recording: RecordingDetail }) {
  const { trialId, fileId, channels, startS } = recording;
  const { data: rows = [] } = useRecordingsQuery(trialId);
  const beside = rows.filter((row) => row.fileId === fileId && row.startS === startS && row.id !== recording.id);
  const pair = recording.backup
    ? { backup: recording.backup, lower: recording.id, main: beside.find((row) => row.channels[0] === recording.backup?.ofChannel) }
    : backupOf(beside, channels[0] as number, recording.id);
  if (!pair?.main) return null;
  return <Offer trialId={trialId} backup={pair.backup} lower={pair.lower} main={pair.main.id} lowerIsUsed={usedIn([...beside, recording], pair.lower)} />;
}

function backupOf(beside: readonly RecordingRow[], channel: number, id: string) {
  const row = beside.find(({ backup }) => backup?.ofChannel === channel);
  return row?.backup ? { backup: row.backup, lower: row.id, main: { id } } : null;
}

const usedIn = (rows: readonly { id: string; setupId: string | null }[], id: string) => rows.some((row) => row.id === id && row.setupId !== null);

interface OfferProps {
  trialId: string;
  backup: Backup;
  lower: string;
  main: string;
  lowerIsUsed: boolean;
}

function Offer({ trialId, backup, lower, main, lowerIsUsed }: OfferProps) {
  const [swap, { isLoading }] = useSwapRecordingsMutation();
  const told = useTold();
  const tell = useNotice();
  const use = async () => {
    const swapped = () => told(swap({ trialId, recordingIds: [lower, main] }));
    const { error } = await swapped();
    if (!error) tell(lowerIsUsed ? `Channel ${backup.ofChannel + 1} is used again` : `The ${backupText(backup)}, is used in its place`, () => void swapped());
  };
  return (
    <section className="row-line" aria-label="Backup track">
      <span>
        {lowerIsUsed ? `The ${backupText(backup)}, is used in its place.` : `There is a ${backupText(backup)}: the same sound, and no microphone of its own.`} {savedText(backup)}
      </span>
      <Button size="sm" variant={!lowerIsUsed && backup.saved > 0 ? 'primary' : 'outline'} disabled={isLoading} onClick={() => void use()}>
        {lowerIsUsed ? `Use channel ${backup.ofChannel + 1} again` : 'Use the backup in its place'}
      </Button>
    </section>
  );
}
