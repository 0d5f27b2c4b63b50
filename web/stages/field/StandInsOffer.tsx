import { type Device, deviceDraftSchema } from '@marvet/core/domain/device';
import Button from 'react-bootstrap/Button';
import { useSaveDeviceMutation, useStandInsQuery, useStartStandInsMutation, useStopStandInsMutation } from '../../data/devices.ts';
import { useChainsQuery } from '../../data/records.ts';
import { Trouble } from '../../parts/states.tsx';

/** Simulated devices of this computer, for whoever has none at hand: they play a range walk over and over. */
export function StandInsOffer({ trialId, devices }: { trialId: string; devices: readonly Device[] }) {
  const standIns = useStandInsQuery();
  const chains = useChainsQuery(trialId);
  const [start, starting] = useStartStandInsMutation();
  const [stop] = useStopStandInsMutation();
  const [save, saving] = useSaveDeviceMutation();
  const candidates = (chains.data ?? []).filter(({ candidate }) => candidate);
  const adoptAll = async () => {
    const { data } = await start();
    const known = new Set(devices.map(({ way }) => JSON.stringify(way)));
    for (const [index, { name, kind, way }] of (data ?? []).entries()) {
      if (known.has(JSON.stringify(way))) continue;
      // The two channels of the simulated receiver stand for the first two candidates, until somebody says otherwise.
      const ties = kind === 'receiver' ? candidates.slice(0, 2).map(({ id }, channel) => ({ group: String(channel + 1), candidateId: id, stationId: null })) : [];
      await save({ trialId, from: null, draft: deviceDraftSchema.parse({ name, kind, way, ties, position: devices.length + index }) });
    }
  };
  if (!standIns.data) return <Trouble error={standIns.error} />;
  const running = standIns.data.some((each) => each.running);
  const adopted = standIns.data.every(({ way }) => devices.some((device) => JSON.stringify(device.way) === JSON.stringify(way)));
  return (
    <div className="device-offer">
      <p className="mb-0 small">
        <b>No device at hand?</b> Marvet ships simulated ones, which play a range walk with a body in the way, fading and a power line: a two-channel receiver, a sound level meter,
        a wind meter, a source of positions and a recorder. They say that they are stand-ins.
      </p>
      <span className="row-line">
        {(!running || !adopted) && (
          <Button size="sm" variant="outline" disabled={starting.isLoading || saving.isLoading} onClick={() => void adoptAll()}>
            Start and adopt them
          </Button>
        )}
        {running && (
          <Button size="sm" variant="plain" onClick={() => void stop()}>
            Stop them
          </Button>
        )}
      </span>
      <Trouble error={starting.error ?? saving.error} />
    </div>
  );
}
