import type { Chain } from '@marvet/core/domain/chain';
import { type Device, type DeviceChannel, type DeviceState, deviceDraftSchema, tieOf } from '@marvet/core/domain/device';
import { quantityText } from '@marvet/core/domain/quantity';
import type { StoredStation } from '@marvet/core/domain/station';
import { Pencil, Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useSaveDeviceMutation } from '../../data/devices.ts';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { useBin } from '../../parts/useBin.ts';

interface DeviceRowProps {
  device: Device;
  state: DeviceState | undefined;
  candidates: readonly Chain[];
  stations: readonly StoredStation[];
  onEdit: () => void;
}

const LINK_WORDS: Record<DeviceState['link'] | 'off', string> = { off: 'off', connecting: 'connecting', live: 'live', silent: 'connected, silent', lost: 'lost' };

/** One device: how it is, what each group of its channels tells right now, and whose that is. */
export function DeviceRow({ device, state, candidates, stations, onEdit }: DeviceRowProps) {
  const [save, { error }] = useSaveDeviceMutation();
  const bin = useBin(device.trialId, 'device');
  const change = (patch: Partial<Device>) =>
    void save({ trialId: device.trialId, from: { id: device.id, version: device.version }, draft: deviceDraftSchema.parse({ ...device, ...patch }) });
  const tie = (group: string, value: string) => {
    const own = { group, candidateId: candidates.some(({ id }) => id === value) ? value : null, stationId: stations.some(({ id }) => id === value) ? value : null };
    change({ ties: [...device.ties.filter((each) => each.group !== group), own] });
  };
  const link = device.on ? (state?.link ?? 'connecting') : 'off';
  const channels = device.about?.channels ?? [];
  const groups = [...new Set(channels.map(({ group }) => group))];
  return (
    <li className="device">
      <div className="row-line apart">
        <span className="row-line">
          <span className={`stop ${link === 'live' ? 'all' : link === 'lost' ? 'none' : 'some'}`} aria-hidden />
          <b>{device.name}</b>
          <span className="small soft">
            {device.kind}, {wayWords(device)}
          </span>
        </span>
        <span className="row-line">
          <span className={`small ${link === 'lost' ? 'alarm' : 'soft'}`} role="status">
            {LINK_WORDS[link]}
            {state?.health && link !== 'off' ? `: ${state.health}` : ''}
          </span>
          <Form.Check type="switch" id={`${device.id}-on`} label="listen" checked={device.on} onChange={(event) => change({ on: event.target.checked })} />
          <Button size="sm" variant="plain" className="icon" aria-label={`Change ${device.name}`} onClick={onEdit}>
            <Pencil size={16} aria-hidden />
          </Button>
          <Button size="sm" variant="plain" className="icon" aria-label={`Delete ${device.name}`} onClick={() => bin(device.id, device.name)}>
            <Trash2 size={16} aria-hidden />
          </Button>
        </span>
      </div>
      {groups.map((group) => (
        <div key={group} className="device-group">
          <Form.Select
            size="sm"
            aria-label={`${device.name}${group ? ` ${group}` : ''} belongs to`}
            value={tieOf(device, group)?.candidateId ?? tieOf(device, group)?.stationId ?? ''}
            onChange={(event) => tie(group, event.target.value)}
          >
            <option value="">{group ? `${group}: whose?` : 'belongs to none'}</option>
            {candidates.map(({ id, name, tape }) => (
              <option key={id} value={id}>
                {tape.letters} {name}
              </option>
            ))}
            {stations.map(({ id, name }) => (
              <option key={id} value={id}>
                at {name}
              </option>
            ))}
          </Form.Select>
          <dl className="device-values">
            {channels
              .filter((channel) => channel.group === group)
              .map((channel) => (
                <Value key={channel.id} channel={channel} value={state?.values[channel.id]} old={link !== 'live'} />
              ))}
          </dl>
        </div>
      ))}
      {state && state.troubles.length > 0 && (
        <details className="small">
          <summary>
            {state.troubles.length} {state.troubles.length === 1 ? 'trouble' : 'troubles'} with what it sent
          </summary>
          <ul className="mb-0">
            {state.troubles.map(({ text, count }) => (
              <li key={text}>
                It {text}
                {count > 1 ? `, ${count.toLocaleString('en-US')} times` : ''}
              </li>
            ))}
          </ul>
        </details>
      )}
      <SaveTrouble what={device.name} conflict={null} error={error} />
    </li>
  );
}

function Value({ channel, value, old }: { channel: DeviceChannel; value: number | undefined; old: boolean }) {
  return (
    <div className={old ? 'soft' : ''}>
      <dt>{channel.name || channel.quantity}</dt>
      <dd className={`mono ${channel.quantity === 'muted' && value === 1 ? 'alarm' : ''}`}>{value === undefined ? '–' : quantityText(channel.quantity, value)}</dd>
    </div>
  );
}

function wayWords({ way }: Device): string {
  return way.by === 'posted' ? 'posts its lines' : `${way.by === 'nmea' ? 'NMEA' : 'lines of JSON'} from ${way.host}:${way.port}`;
}
