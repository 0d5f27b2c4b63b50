import { getTimes } from 'suncalc';

/** When the sun stands on the horizon of a place on a day; null above the polar circles when it does not. */
export interface SunTimes {
  sunriseMs: number | null;
  sunsetMs: number | null;
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
  const { sunrise, sunset } = getTimes(new Date(dayMs), latitudeDeg, longitudeDeg);
  return { sunriseMs: instant(sunrise), sunsetMs: instant(sunset) };
}
