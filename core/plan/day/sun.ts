import { getPosition, getTimes } from 'suncalc';

/** When the sun stands on the horizon of a place on a day; null above the polar circles when it does not, which is then light or dark all day. */
export interface SunTimes {
  sunriseMs: number | null;
  sunsetMs: number | null;
  allDay: 'light' | 'dark' | null;
}

const instant = (date: Date | null | undefined) => (date && Number.isFinite(date.getTime()) ? date.getTime() : null);

/**
 * Sunrise and sunset: upper limb on a level horizon with mean refraction, so within a minute or two of
 * almanacs; hills, trees and cloud take light away earlier.
 * @param dayMs an instant near the middle of the day meant
 * @param latitudeDeg north is positive
 * @param longitudeDeg east is positive
 */
export function sunTimes(dayMs: number, latitudeDeg: number, longitudeDeg: number): SunTimes {
  const { sunrise, sunset, alwaysUp, alwaysDown } = getTimes(new Date(dayMs), latitudeDeg, longitudeDeg);
  return { sunriseMs: instant(sunrise), sunsetMs: instant(sunset), allDay: alwaysUp ? 'light' : alwaysDown ? 'dark' : null };
}

/** Half of the sun's width: with the middle this far under the horizon its upper limb is on it. */
const HALF_WIDTH_DEG = 0.267;

/** Whether the sun is under the horizon, on whatever day that is and wherever on earth. */
export function isDark(atMs: number, latitudeDeg: number, longitudeDeg: number): boolean {
  return getPosition(new Date(atMs), latitudeDeg, longitudeDeg).altitude < -HALF_WIDTH_DEG;
}
