/** What Marvet uses of a Broadcast Audio Extension chunk, EBU Tech 3285. */
export interface Bext {
  description: string;
  originator: string;
  originationDate: string;
  originationTime: string;
  timeReferenceSamples: number;
  /** From `sSCENE=`, `sTAKE=`, `sTAPE=` and `sTRK1=` lines that recorders write into the description. */
  scene: string | null;
  take: string | null;
  tape: string | null;
  trackNames: (string | null)[];
}

const FIXED_BYTES = 602;

function text(bytes: Uint8Array, start: number, length: number): string {
  const part = bytes.subarray(start, start + length);
  const end = part.indexOf(0);
  return new TextDecoder('latin1').decode(end >= 0 ? part.subarray(0, end) : part).trim();
}

/** Parses a bext chunk; null when it is shorter than the fields that every version has (to 348). */
export function readBext(bytes: Uint8Array): Bext | null {
  if (bytes.byteLength < 348) return null;
  const data = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const lines = new Map<string, string>();
  for (const line of text(bytes, 0, 256).split(/[\r\n]+/)) {
    const match = /^[a-z]?(SCENE|TAKE|TAPE|TRK\d{1,2})=(.*)$/i.exec(line.trim());
    if (match?.[1] && match[2]?.trim()) lines.set(match[1].toUpperCase(), match[2].trim());
  }
  return {
    description: text(bytes, 0, 256),
    originator: text(bytes, 256, 32),
    originationDate: text(bytes, 320, 10),
    originationTime: text(bytes, 330, 8),
    timeReferenceSamples: Number(data.getBigUint64(338, true)),
    scene: lines.get('SCENE') ?? null,
    take: lines.get('TAKE') ?? null,
    tape: lines.get('TAPE') ?? null,
    trackNames: Array.from({ length: 32 }, (_, index) => lines.get(`TRK${index + 1}`) ?? null),
  };
}

/** Nearer than this, the time reference is the time of day and finer than the seconds of the origination time. */
const SAME_TIME_S = 2;

/**
 * When a file began by its recorder's clock: origination date and time (EBU Tech 3285, 2.3), to the sample where the time reference is
 * that time of day. A time without its zone; null where there is no date, as a clock that was never set leaves it.
 * @example startOf({ originationDate: '2026-04-14', originationTime: '09:30:00', timeReferenceSamples: 1_641_624_000 }, 48_000) // '2026-04-14T09:30:00.500'
 */
export function startOf(
  { originationDate, originationTime, timeReferenceSamples }: Pick<Bext, 'originationDate' | 'originationTime' | 'timeReferenceSamples'>,
  sampleRateHz: number,
): string | null {
  const date = /^(\d{4})\D(\d{2})\D(\d{2})$/.exec(originationDate);
  const time = /^(\d{2})\D(\d{2})\D(\d{2})$/.exec(originationTime);
  if (!date || !time) return null;
  const [dayMs, secondsS] = [Date.parse(`${date[1]}-${date[2]}-${date[3]}T00:00:00Z`), Number(time[1]) * 3600 + Number(time[2]) * 60 + Number(time[3])];
  if (Number.isNaN(dayMs) || secondsS >= 86_400) return null;
  const referenceS = timeReferenceSamples / sampleRateHz;
  const startS = Math.abs(referenceS - secondsS) <= SAME_TIME_S ? referenceS : secondsS;
  return new Date(dayMs + Math.round(startS * 1000)).toISOString().slice(0, -1);
}

/** Writes a version 1 bext chunk body. Texts that are too long are cut; dates are yyyy-mm-dd, hh:mm:ss. */
export function writeBext(bext: Pick<Bext, 'description' | 'originator' | 'originationDate' | 'originationTime' | 'timeReferenceSamples'>): Uint8Array {
  const bytes = new Uint8Array(FIXED_BYTES);
  const put = (value: string, start: number, length: number) => {
    for (let index = 0; index < Math.min(value.length, length); index++) bytes[start + index] = value.charCodeAt(index) & 0x7f;
  };
  put(bext.description, 0, 256);
  put(bext.originator, 256, 32);
  put(bext.originationDate, 320, 10);
  put(bext.originationTime, 330, 8);
  const data = new DataView(bytes.buffer);
  data.setBigUint64(338, BigInt(Math.round(bext.timeReferenceSamples)), true);
  data.setUint16(346, 1, true);
  return bytes;
}
