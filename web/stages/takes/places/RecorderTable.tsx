import type { RecorderOfTrial } from '@marvet/core/contract/places';
import type { Chain } from '@marvet/core/domain/chain';
import { MOST_AHEAD_S } from '@marvet/core/domain/recorder';
import { SURE } from '@marvet/core/takes/places/placeByClock';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useChangeRecorderMutation, usePutInPlaceMutation } from '../../../data/places.ts';
import { KeptNumber } from '../../../parts/fields.tsx';
import { useNotice } from '../../../parts/notices.tsx';
import { TapeMark } from '../../../parts/TapeMark.tsx';
import { useTold } from '../../../parts/useTold.ts';
import { clockSays } from './placeWords.ts';

/** More channels than this are not asked for in a line. */
const MOST_CHANNELS = 8;

interface RecorderTableProps {
  trialId: string;
  recorders: RecorderOfTrial[];
  chains: readonly Chain[];
}

/** The recorders of a trial: their clocks, found from all of their files or set by hand, and what their channels are of. What is said of one moves all of its files. */
export function RecorderTable({ trialId, recorders, chains }: RecorderTableProps) {
  const [change] = useChangeRecorderMutation();
  const [put] = usePutInPlaceMutation();
  const told = useTold();
  const tell = useNotice();
  const setClock = async ({ recorder, aheadByHandS }: RecorderOfTrial, aheadS: number | null) => {
    const { error } = await told(change({ trialId, patch: { name: recorder, aheadS } }));
    if (!error)
      tell(`The clock of ${recorder} is ${aheadS === null ? 'found again' : 'set'}`, () => void told(change({ trialId, patch: { name: recorder, aheadS: aheadByHandS } })));
  };
  const setCandidate = async ({ recorder, candidateIds }: RecorderOfTrial, channel: number, candidateId: string | null) => {
    const { data: before } = await told(change({ trialId, patch: { name: recorder, channel: { index: channel, candidateId } } }));
    if (!before) return;
    const undo = async () => {
      const { error } = await told(change({ trialId, patch: { name: recorder, channel: { index: channel, candidateId: candidateIds[channel] ?? null } } }));
      if (!error && before.places.length > 0) await told(put({ trialId, ...before }));
    };
    tell(`Channel ${channel + 1} of ${recorder} is of ${chains.find(({ id }) => id === candidateId)?.name ?? 'no candidate'}`, () => void undo());
  };
  return (
    <table className="plain" aria-label="Recorders">
      <thead>
        <tr>
          <th>Recorder</th>
          <th className="num">Files</th>
          <th>Its channels are of</th>
          <th>Its clock against the log's</th>
          <th>Set by hand, s ahead</th>
        </tr>
      </thead>
      <tbody>
        {recorders.map((own) => (
          <tr key={own.recorder}>
            <td>
              <b>{own.recorder}</b>
            </td>
            <td className="num">{own.files}</td>
            <td>
              <div className="row-line">
                {channelsOf(own).map(({ key, channel, candidateId }) => (
                  <ChannelChoice key={key} {...{ own, candidateId, channel, chains }} onChange={(chosen) => void setCandidate(own, channel, chosen)} />
                ))}
              </div>
            </td>
            <td>{clockSays(own)}</td>
            <td>
              <div className="row-line">
                <KeptNumber
                  label={`Seconds by which ${own.recorder} is ahead`}
                  hideLabel
                  size="sm"
                  min={-MOST_AHEAD_S}
                  max={MOST_AHEAD_S}
                  placeholder={own.clock ? own.clock.aheadS.toFixed(0) : ''}
                  value={own.aheadByHandS}
                  onKeep={(aheadS) => void setClock(own, aheadS)}
                />
                {own.aheadByHandS === null && own.timed > 0 && !(own.clock && own.clock.sure > SURE) && (
                  <Button size="sm" variant="plain" onClick={() => void setClock(own, 0)}>
                    It is right
                  </Button>
                )}
                {own.aheadByHandS !== null && (
                  <Button size="sm" variant="plain" onClick={() => void setClock(own, null)}>
                    Find it
                  </Button>
                )}
              </div>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const channelsOf = ({ candidateIds, sources }: RecorderOfTrial) =>
  sources.slice(0, MOST_CHANNELS).map((channel) => ({ key: `channel ${channel}`, channel, candidateId: candidateIds[channel] ?? null }));

interface ChannelChoiceProps {
  own: RecorderOfTrial;
  candidateId: string | null;
  channel: number;
  chains: readonly Chain[];
  onChange(candidateId: string | null): void;
}

function ChannelChoice({ own, candidateId, channel, chains, onChange }: ChannelChoiceProps) {
  const chain = chains.find(({ id }) => id === candidateId);
  return (
    <span className="row-line">
      {chain ? <TapeMark tape={chain.tape} /> : <span className="mono small">{channel + 1}</span>}
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label={`Channel ${channel + 1} of ${own.recorder}`}
        value={candidateId ?? ''}
        onChange={(event) => onChange(event.target.value || null)}
      >
        <option value="">by its name</option>
        {chains.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Form.Select>
    </span>
  );
}
