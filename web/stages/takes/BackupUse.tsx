import type { RecordingDetail, RecordingRow } from '@marvet/core/contract/recordings';
import type { Backup } from '@marvet/core/domain/recording';
import Button from 'react-bootstrap/Button';
import { useRecordingsQuery, useSwapRecordingsMutation } from '../../data/work.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

const mainText = ({ ofChannel, ofFile }: Backup) => (ofFile ? `${ofChannel === 0 ? '' : `channel ${ofChannel + 1} of `}${ofFile.name}` : `channel ${ofChannel + 1}`);

/** What a backup is, in short. */
export const backupText = (backup: Backup) => `backup of ${mainText(backup)}, ${backup.lowerByDb.toFixed(1)} dB lower`;

/** What a backup would save of its main track. */
export function savedText(backup: Backup): string {
  const { clipped, saved } = backup;
  const main = sentence(mainText(backup));
  if (clipped === 0) return `${main} does not clip: there is nothing that it would save.`;
  const moments = clipped === 1 ? 'moment' : 'moments';
  return `${main} clips at ${clipped} ${moments}; ${saved === clipped ? 'all' : saved} of them ${saved === 1 ? 'is' : 'are'} whole on the backup.`;
}

/** A file is called as it is written. */
const sentence = (text: string) => (text.startsWith('channel') ? `C${text.slice(1)}` : text);

/** A recording that is a backup, or has one: what using it would save, and the way to use it. */
export function BackupUse({ recording }: { recording: RecordingDetail }) {
  const { trialId, takeId } = recording;
  const { data: rows = [] } = useRecordingsQuery(trialId);
  const own = rows.find(({ id }) => id === recording.id);
  const inTake = rows.filter((row) => row.takeId === takeId);
  const lower = recording.backup ? own : inTake.find((row) => own && isOf(row, own));
  const main = lower && inTake.find((row) => isOf(lower, row));
  if (!lower?.backup || !main) return null;
  return <Offer trialId={trialId} backup={lower.backup} file={lower.fileName} lower={lower.id} main={main.id} lowerIsUsed={lower.setupId !== null} />;
}

/** Whether one recording is the backup of another: of the same stretch where they are of one file. */
function isOf({ backup, fileId, startS }: RecordingRow, main: RecordingRow): boolean {
  if (!backup || main.channels[0] !== backup.ofChannel) return false;
  return backup.ofFile ? backup.ofFile.id === main.fileId : fileId === main.fileId && startS === main.startS;
}

interface OfferProps {
  trialId: string;
  backup: Backup;
  /** In which the backup lies. */
  file: string;
  lower: string;
  main: string;
  lowerIsUsed: boolean;
}

function Offer({ trialId, backup, file, lower, main, lowerIsUsed }: OfferProps) {
  const [swap, { isLoading }] = useSwapRecordingsMutation();
  const told = useTold();
  const tell = useNotice();
  const [mainName, where] = [mainText(backup), backup.ofFile ? ` in ${file}` : ''];
  const use = async () => {
    const swapped = () => told(swap({ trialId, recordingIds: [lower, main] }));
    const { error } = await swapped();
    if (!error) tell(lowerIsUsed ? `${sentence(mainName)} is used again` : `The ${backupText(backup)}, is used in its place`, () => void swapped());
  };
  return (
    <section className="row-line" aria-label="Backup track">
      <span>
        {lowerIsUsed ? `The ${backupText(backup)}${where}, is used in its place.` : `There is a ${backupText(backup)}${where}: the same sound, and no microphone of its own.`}{' '}
        {savedText(backup)}
      </span>
      <Button size="sm" variant={!lowerIsUsed && backup.saved > 0 ? 'primary' : 'outline'} disabled={isLoading} onClick={() => void use()}>
        {lowerIsUsed ? `Use ${mainName} again` : 'Use the backup in its place'}
      </Button>
    </section>
  );
}
