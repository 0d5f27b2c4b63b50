import { AlarmBoard, type DeviceAlarm, deviceAlarms } from '@marvet/core/radio/deviceAlarms';
import { TriangleAlert, X } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useDevicesQuery, useLiveDevicesQuery } from '../../data/devices.ts';

const LOOK_EVERY_MS = 500;
/** One for the page: what was put away stays away when the view changes. */
const board = new AlarmBoard();

/** What is wrong at devices now: each told once, until it is put away. */
export function Alarms({ trialId, rolling }: { trialId: string; rolling: boolean }) {
  const { data: devices } = useDevicesQuery(trialId);
  const { data: states } = useLiveDevicesQuery(trialId);
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNowMs(Date.now()), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  const alarms = useMemo((): DeviceAlarm[] => board.shown(deviceAlarms(devices ?? [], states ?? [], rolling), nowMs), [devices, states, rolling, nowMs]);
  if (alarms.length === 0) return null;
  return (
    <ul className="alarms" aria-label="Alarms of devices">
      {alarms.map(({ key, text }) => (
        <li key={key} className="trouble">
          <TriangleAlert size={17} aria-hidden />
          <span className="grow" role="alert">
            {text}
          </span>
          <Button
            size="sm"
            variant="plain"
            className="icon"
            aria-label={`Put away: ${text}`}
            onClick={() => {
              board.putAway(key);
              setNowMs(Date.now());
            }}
          >
            <X size={16} aria-hidden />
          </Button>
        </li>
      ))}
    </ul>
  );
}
