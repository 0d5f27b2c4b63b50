import type { Device, DeviceState } from '@marvet/core/domain/device';
import { type Quantity, quantityText } from '@marvet/core/domain/quantity';
import type { Take } from '@marvet/core/domain/take';
import Button from 'react-bootstrap/Button';
import { useDevicesQuery, useLiveDevicesQuery } from '../../data/devices.ts';
import type { FieldState } from './useFieldLog.ts';

const SHOWN: readonly Quantity[] = ['soundLevelDba', 'windMs', 'rolling', 'timecodeS', 'spaceLeftMin'];

/** What the meters and the recorder of the place tell right now; wind and level can be taken over as the take's with one press. */
export function LiveReadings({ take, write }: { take: Take; write: FieldState['write'] }) {
  const { data: devices } = useDevicesQuery(take.trialId);
  const { data: states } = useLiveDevicesQuery(take.trialId);
  const told = tellingOf(devices ?? [], states ?? []);
  if (told.length === 0) return null;
  const of = (quantity: Quantity) => told.find((each) => each.quantity === quantity)?.value;
  const [windMs, noiseDba] = [of('windMs'), of('soundLevelDba')];
  const tenth = (value: number | undefined, otherwise: number | null) => (value === undefined ? otherwise : Math.round(value * 10) / 10);
  return (
    <div className="live-readings">
      <dl className="device-values" aria-label="Devices now">
        {told.map(({ key, name, quantity, value }) => (
          <div key={key}>
            <dt>{name}</dt>
            <dd className="mono">{quantityText(quantity, value)}</dd>
          </div>
        ))}
      </dl>
      {(windMs !== undefined || noiseDba !== undefined) && (
        <Button
          variant="outline"
          onClick={() =>
            void write((takes) => {
              const now = takes.find((other) => other.id === take.id) ?? take;
              return { kind: 'conditions', takeId: take.id, windMs: tenth(windMs, now.windMs), noiseDba: tenth(noiseDba, now.noiseDba) };
            })
          }
        >
          Note as this take’s
        </Button>
      )}
    </div>
  );
}

function tellingOf(devices: readonly Device[], states: readonly DeviceState[]) {
  return devices.flatMap((device) => {
    const state = states.find(({ deviceId, link }) => deviceId === device.id && link === 'live');
    return (device.about?.channels ?? []).flatMap(({ id, quantity }) => {
      const value = state?.values[id];
      return value !== undefined && SHOWN.includes(quantity) ? [{ key: `${device.id} ${id}`, name: `${device.name}`, quantity, value }] : [];
    });
  });
}
