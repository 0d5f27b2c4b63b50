import type { TrackPoint } from '@marvet/core/domain/walk';
import { useEffect, useRef, useState } from 'react';
import type { FieldState } from './useFieldLog.ts';

/** Where this phone is, as its browser knows it. */
export interface PhonePosition {
  on: boolean;
  last: TrackPoint | null;
  trouble: string | null;
  turn(on: boolean): void;
}

const WRITE_EVERY_MS = 5000;
const MOST_AT_ONCE = 500;

const REASONS: Record<number, string> = {
  1: 'The browser may not tell where this phone is. Allow it for this page, then turn it on again.',
  2: 'This phone does not know where it is now.',
  3: 'This phone took too long to know where it is.',
};

/**
 * The position of this phone while it is asked for, by the browser's own consent. While a take rolls its points are written to the
 * log like any line: they wait in this browser when the server is away.
 * @param takeId the take that rolls; null while none does
 */
export function usePosition(takeId: string | null, write: FieldState['write']): PhonePosition {
  const [on, setOn] = useState(false);
  const [last, setLast] = useState<TrackPoint | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const waiting = useRef<TrackPoint[]>([]);
  const rolling = useRef(takeId);
  rolling.current = takeId;
  useEffect(() => {
    if (!on) return;
    if (!('geolocation' in navigator)) {
      setTrouble('This browser tells no position.');
      return;
    }
    const watch = navigator.geolocation.watchPosition(
      ({ timestamp, coords }) => {
        const point = { atMs: Math.round(timestamp), latitudeDeg: coords.latitude, longitudeDeg: coords.longitude, accuracyM: coords.accuracy };
        setTrouble(null);
        setLast(point);
        if (rolling.current !== null) waiting.current.push(point);
      },
      (error) => setTrouble(REASONS[error.code] ?? error.message),
      { enableHighAccuracy: true, maximumAge: 0 },
    );
    return () => navigator.geolocation.clearWatch(watch);
  }, [on]);
  useEffect(() => {
    if (!on || takeId === null) return;
    const flush = () => {
      const points = waiting.current.splice(0, MOST_AT_ONCE);
      if (points.length > 0) void write({ kind: 'positions', takeId, points });
    };
    const timer = setInterval(flush, WRITE_EVERY_MS);
    return () => {
      clearInterval(timer);
      flush();
    };
  }, [on, takeId, write]);
  return { on, last, trouble, turn: setOn };
}
