import { type Device, type DeviceState, tieOf } from '../domain/device.ts';
import { quantityText } from '../domain/quantity.ts';

/** Something at a device that somebody should know now. */
export interface DeviceAlarm {
  /** Stays the same while it lasts, so that it is told once. */
  key: string;
  deviceId: string;
  candidateId: string | null;
  text: string;
}

const LOW_BATTERY_PERCENT = 15;
const LITTLE_SPACE_MIN = 20;
const FULL_SCALE_DBFS = -1;

/** What is wrong at devices at this moment. @param rolling whether a take runs: a recorder that stands still is an alarm only then */
export function deviceAlarms(devices: readonly Device[], states: readonly DeviceState[], rolling: boolean): DeviceAlarm[] {
  return devices
    .filter(({ on }) => on)
    .flatMap((device) => {
      const state = states.find(({ deviceId }) => deviceId === device.id);
      if (!state) return [];
      const alarm = (what: string, text: string, group = ''): DeviceAlarm => ({
        key: `${device.id} ${what} ${group}`,
        deviceId: device.id,
        candidateId: tieOf(device, group)?.candidateId ?? null,
        text: `${device.name}: ${text}`,
      });
      if (state.link === 'lost') return [alarm('lost', `gone, ${state.health}`)];
      if (state.link === 'silent' && device.way.by !== 'posted') return [alarm('silent', 'connected, but nothing comes')];
      return (device.about?.channels ?? []).flatMap(({ id, quantity, group }) => {
        const value = state.values[id];
        if (value === undefined) return [];
        const of = group ? ` of ${group}` : '';
        if (quantity === 'batteryPercent' && value <= LOW_BATTERY_PERCENT) return [alarm('battery', `battery${of} at ${quantityText(quantity, value)}`, group)];
        if (quantity === 'spaceLeftMin' && value <= LITTLE_SPACE_MIN) return [alarm('space', `room for ${quantityText(quantity, value)} more`, group)];
        if (quantity === 'audioLevelDbfs' && value >= FULL_SCALE_DBFS) return [alarm('full', `level${of} at full scale`, group)];
        if (quantity === 'muted' && value >= 0.5) return [alarm('muted', `muted${of}`, group)];
        if (quantity === 'rolling' && value < 0.5 && rolling) return [alarm('still', 'does not roll', group)];
        return [];
      });
    });
}

/** What was told of an alarm, and when it was last there. */
interface Told {
  sinceMs: number;
  seenMs: number;
  away: boolean;
}

/** So long it must last before it is told: a fade mutes for less. */
const TOLD_AFTER_MS = 2000;
/** So long it must be gone before it counts as new again. */
const GONE_AFTER_MS = 60_000;

/**
 * Alarms that do not nag: what lasts is told once, what somebody put away stays away until it was gone for a minute, and what flickers
 * is one alarm.
 */
export class AlarmBoard {
  private readonly known = new Map<string, Told>();

  /** What is to be shown, given what is wrong now. */
  shown(alarms: readonly DeviceAlarm[], nowMs: number): DeviceAlarm[] {
    for (const [key, told] of this.known) if (nowMs - told.seenMs > GONE_AFTER_MS) this.known.delete(key);
    return alarms.filter(({ key }) => {
      const told = this.known.get(key) ?? { sinceMs: nowMs, seenMs: nowMs, away: false };
      // What comes and goes begins anew after a pause longer than it takes to be told.
      if (nowMs - told.seenMs > TOLD_AFTER_MS) told.sinceMs = nowMs;
      told.seenMs = nowMs;
      this.known.set(key, told);
      return !told.away && nowMs - told.sinceMs >= TOLD_AFTER_MS;
    });
  }

  putAway(key: string): void {
    const told = this.known.get(key);
    if (told) told.away = true;
  }
}
