import type { Power } from '../../domain/connector.ts';
import type { ConditionKind } from '../../domain/factor.ts';
import { listed } from '../../domain/listed.ts';
import { exactShare } from '../../statistics/exactTests.ts';
import type { ClearLimit, LevelLimit, Limits, WindLimit } from './limits.ts';

/** A limit of use as a sentence, with what it rests on. */
export interface LimitSaid {
  about: 'wind' | 'noise' | 'room' | 'level' | 'feed' | 'hours';
  text: string;
  evidence: string;
}

/** How a level of a kind is called. */
export type LevelName = (kind: ConditionKind, levelId: string) => string;

const CONFIDENCE = 0.95;
const takesText = (takes: number) => `${takes} ${takes === 1 ? 'take' : 'takes'}`;

/** So many of so many, and up to how often it may come all the same. */
function ofTakes(came: number, takes: number): string {
  const [low, high] = exactShare(came, takes, CONFIDENCE);
  const percent = (share: number) => Math.round(100 * share);
  return `${came} of ${takesText(takes)}, so ${percent(low)} to ${percent(high)} % with ${percent(CONFIDENCE)} % confidence`;
}

const windText = ({ windscreen, takes, windy, freeToMs, heardFromMs, byStation }: WindLimit, name: LevelName): LimitSaid => {
  const label = name('windscreen', windscreen);
  const cover = `${label.charAt(0).toLocaleUpperCase()}${label.slice(1)}`;
  // The speed of a side that had takes is known.
  const speed = (ms: number | null) => `${ms} m/s`;
  const known = byStation === 0 ? '' : `; the wind of ${byStation === takes ? 'all' : byStation} is what the station is known for, not a reading`;
  const text =
    windy === 0
      ? `${cover}: no wind in the sound up to ${speed(freeToMs)}`
      : windy === takes
        ? `${cover}: wind in the sound from ${speed(heardFromMs)} on, the gentlest it was tried in`
        : (freeToMs as number) < (heardFromMs as number)
          ? `${cover}: no wind in the sound up to ${speed(freeToMs)}, and some from ${speed(heardFromMs)} on`
          : `${cover}: wind in the sound at times from ${speed(heardFromMs)} on, and none at times up to ${speed(freeToMs)}`;
  return { about: 'wind', text: `${text}.`, evidence: `wind in ${ofTakes(windy, takes)}${known}` };
};

/** Levels at which words were always clear, sometimes, and never: a sentence each, where there are any. */
function clearTexts(limits: readonly ClearLimit[], about: 'noise' | 'room', index: string, name: LevelName): LimitSaid[] {
  const group = (isIn: (limit: ClearLimit) => boolean, say: (names: string) => string): LimitSaid[] => {
    const own = limits.filter(isIn);
    if (own.length === 0) return [];
    const clear = own.reduce((sum, each) => sum + each.clear, 0);
    const takes = own.reduce((sum, each) => sum + each.takes, 0);
    const low = Math.min(...own.map((each) => each.low)).toFixed(2);
    const high = Math.max(...own.map((each) => each.high)).toFixed(2);
    const loudest = own.reduce<ClearLimit | null>(
      (most, each) => (each.clearToDba !== null && each.clearToDba > (most?.clearToDba ?? Number.NEGATIVE_INFINITY) ? each : most),
      null,
    );
    const to =
      about === 'noise' && loudest !== null
        ? `, in up to ${loudest.clearToDba?.toFixed(0)} dB A around it${loudest.byStation ? ', which is what the station is known for' : ''}`
        : '';
    return [
      {
        about,
        text: `${say(listed(own.map(({ kind, levelId }) => name(kind, levelId))))}${to}.`,
        evidence: `${index} ${low === high ? low : `${low} to ${high}`}, clear in ${ofTakes(clear, takes)}`,
      },
    ];
  };
  const at = about === 'room' ? 'indoors at' : 'at or in';
  return [
    ...group(
      ({ clear, takes }) => clear === takes,
      (names) => `Words stay clear ${at} ${names}`,
    ),
    ...group(
      ({ clear, takes }) => clear > 0 && clear < takes,
      (names) => `Words are clear only at times ${at} ${names}`,
    ),
    ...group(
      ({ clear }) => clear === 0,
      (names) => `Words are not clear ${at} ${names}`,
    ),
  ];
}

/** Peaks above this are as good as full. */
const FULL_DBTP = -1;
const STAGES = { transmitter: 'the transmitter', receiver: 'the receiver', recorder: 'the recorder' } as const;

function levelText({ takes, clipped, loudestDbtp, speechDbfs, gains }: LevelLimit): LimitSaid {
  const noted = gains.filter(({ clippedFromDb }) => clippedFromDb !== null);
  const gain = noted.map(({ stage, clippedFromDb, cleanToDb }) =>
    cleanToDb !== null && cleanToDb < (clippedFromDb as number)
      ? `a gain of ${cleanToDb} dB at ${STAGES[stage]} is safe, ${clippedFromDb} dB is not`
      : `with ${clippedFromDb} dB at ${STAGES[stage]} something clipped, and gain alone does not explain it`,
  );
  const text =
    clipped === 0
      ? `Nothing clipped${loudestDbtp === null ? '' : `${loudestDbtp > FULL_DBTP ? ', with no room left' : ''}: the loudest peak is ${loudestDbtp.toFixed(1)} dBTP`}`
      : `It clipped or was overloaded${gain.length > 0 ? `: ${gain.join('; ')}` : '; no gain was noted, so at which it did is not known'}`;
  const speech = speechDbfs ? `; speech lay at ${speechDbfs[0].toFixed(0)} to ${speechDbfs[1].toFixed(0)} dBFS`.replaceAll('-', '−') : '';
  return { about: 'level', text: `${text.replaceAll('-', '−')}.`, evidence: `${ofTakes(clipped, takes)}${speech}` };
}

const FEEDS: Record<Power, string> = {
  none: 'Its microphone needs no power over the line.',
  'plug-in': 'Its microphone has to be fed with plug-in power.',
  bias: 'Its microphone has to be fed with bias.',
  'phantom 12 V': 'Its microphone has to be fed with 12 V phantom.',
  'phantom 48 V': 'Its microphone has to be fed with 48 V phantom.',
};

/** Limits of use of a candidate in sentences, each with its evidence. */
export function limitsSaid(limits: Limits, name: LevelName): LimitSaid[] {
  return [
    ...limits.wind.map((each) => windText(each, name)),
    ...clearTexts(limits.words, 'noise', 'intelligibility index', name),
    ...clearTexts(limits.room, 'room', 'speech transmission index', name),
    ...(limits.level ? [levelText(limits.level)] : []),
    ...(limits.feed ? [{ about: 'feed' as const, text: FEEDS[limits.feed], evidence: 'of its papers, as entered in Kit' }] : []),
    ...(limits.hours
      ? [{ about: 'hours' as const, text: `It runs for ${limits.hours.hours} h: ${limits.hours.name} stops first.`, evidence: 'of its papers, as entered in Kit' }]
      : []),
  ];
}

/** What nobody can say of it, since it was not tried or is not known. */
export function limitsOpen({ wind, words, room, level, feed, hours }: Limits): string[] {
  return [
    ...(wind.length === 0 ? ['wind: no recording was made in wind whose speed is known'] : []),
    ...(words.length === 0 ? ['words in noise: no recording has enough words to tell'] : []),
    ...(room.length < 2 ? ['where the room takes over: words were not recorded indoors at two distances with a number'] : []),
    ...(level === null ? ['level and gain: nothing was measured'] : []),
    ...(feed === null ? ['what feeds its microphone: Kit does not say'] : []),
    ...(hours === null ? ['how long it runs: Kit does not say'] : []),
  ];
}
