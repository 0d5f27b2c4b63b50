/** What a device can tell: how it is called, in what unit, and between which values it can lie at all. */
export const QUANTITIES = {
  radioLevelDbm: { name: 'radio level', unit: 'dBm', least: -140, most: 30, digits: 0 },
  audioLevelDbfs: { name: 'audio level', unit: 'dBFS', least: -160, most: 12, digits: 0 },
  muted: { name: 'muted', unit: '', least: 0, most: 1, digits: 0 },
  batteryPercent: { name: 'battery', unit: '%', least: 0, most: 100, digits: 0 },
  soundLevelDba: { name: 'sound level', unit: 'dB A', least: -20, most: 194, digits: 1 },
  windMs: { name: 'wind', unit: 'm/s', least: 0, most: 100, digits: 1 },
  temperatureC: { name: 'temperature', unit: '°C', least: -90, most: 80, digits: 1 },
  latitudeDeg: { name: 'latitude', unit: '°', least: -90, most: 90, digits: 5 },
  longitudeDeg: { name: 'longitude', unit: '°', least: -180, most: 180, digits: 5 },
  altitudeM: { name: 'altitude', unit: 'm', least: -500, most: 10_000, digits: 0 },
  rolling: { name: 'rolling', unit: '', least: 0, most: 1, digits: 0 },
  timecodeS: { name: 'timecode', unit: 's', least: 0, most: 86_400, digits: 0 },
  spaceLeftMin: { name: 'space left', unit: 'min', least: 0, most: 1_000_000, digits: 0 },
  other: { name: 'reading', unit: '', least: -1e12, most: 1e12, digits: 2 },
} as const satisfies Record<string, { name: string; unit: string; least: number; most: number; digits: number }>;

export type Quantity = keyof typeof QUANTITIES;
export const QUANTITY_IDS = Object.keys(QUANTITIES) as [Quantity, ...Quantity[]];

/** Why a value cannot be one of its quantity; null where it can. */
export function impossible(quantity: Quantity, value: number): string | null {
  const { name, unit, least, most } = QUANTITIES[quantity];
  return value >= least && value <= most ? null : `${name} of ${value} ${unit}`.trim();
}

const YES_OR_NO: readonly Quantity[] = ['muted', 'rolling'];
const two = (value: number) => String(Math.floor(value)).padStart(2, '0');

/**
 * A value of a quantity as it is read.
 * @example quantityText('radioLevelDbm', -61.7) // "−62 dBm"
 */
export function quantityText(quantity: Quantity, value: number): string {
  if (YES_OR_NO.includes(quantity)) return value >= 0.5 ? 'yes' : 'no';
  if (quantity === 'timecodeS') return `${two(value / 3600)}:${two((value / 60) % 60)}:${two(value % 60)}`;
  const { unit, digits } = QUANTITIES[quantity];
  return `${value.toFixed(digits)} ${unit}`.trim().replace('-', '−');
}
