import type { Device, DeviceState } from '@marvet/core/domain/device';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useDevicesQuery, useLiveDevicesQuery } from '../../data/devices.ts';
import { useChainsQuery, useStationsQuery } from '../../data/records.ts';
import { Empty, Loaded, Sheet } from '../../parts/states.tsx';
import { DeviceDialog } from './DeviceDialog.tsx';
import { DeviceRow } from './DeviceRow.tsx';
import { MeterFile } from './MeterFile.tsx';
import { MicrophoneLevel } from './MicrophoneLevel.tsx';
import { StandInsOffer } from './StandInsOffer.tsx';

/** Devices that were adopted: what they tell right now, whose it is, and how to adopt another. */
export function DevicesView({ trialId, guest }: { trialId: string; guest: boolean }) {
  const devices = useDevicesQuery(trialId);
  const live = useLiveDevicesQuery(trialId);
  const chains = useChainsQuery(trialId);
  const stations = useStationsQuery(trialId);
  const [edited, setEdited] = useState<Device | 'new' | null>(null);
  return (
    <Sheet
      title="Devices"
      aside={
        guest ? (
          <span className="small soft">Devices are adopted at the laptop.</span>
        ) : (
          <Button size="sm" variant="primary" onClick={() => setEdited('new')}>
            <Plus size={16} aria-hidden /> Adopt a device
          </Button>
        )
      }
    >
      <Loaded of={[devices, live, chains, stations]}>
        {() => (
          <>
            {devices.data!.length === 0 ? (
              <Empty>
                No device yet. A receiver, a meter, a recorder or a source of positions that is adopted here is shown live, and what it tells is kept with the takes. How a device
                of your own can talk to Marvet is in docs/devices.md.
              </Empty>
            ) : (
              <ul className="device-list" aria-label="Devices">
                {devices.data!.map((device) => (
                  <DeviceRow
                    key={device.id}
                    device={device}
                    state={stateOf(device, live.data!)}
                    candidates={chains.data!.filter(({ candidate }) => candidate)}
                    stations={stations.data!}
                    onEdit={() => setEdited(device)}
                  />
                ))}
              </ul>
            )}
            {!guest && (
              <>
                <StandInsOffer trialId={trialId} devices={devices.data!} />
                <MicrophoneLevel trialId={trialId} devices={devices.data!} />
                <MeterFile trialId={trialId} devices={devices.data!} />
              </>
            )}
            {edited && <DeviceDialog trialId={trialId} device={edited === 'new' ? null : edited} position={devices.data!.length} onClose={() => setEdited(null)} />}
          </>
        )}
      </Loaded>
    </Sheet>
  );
}

const stateOf = (device: Device, states: readonly DeviceState[]) => states.find(({ deviceId }) => deviceId === device.id);
