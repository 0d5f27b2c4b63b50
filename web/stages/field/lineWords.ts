import type { LogLine } from '@marvet/core/domain/logLine';

/** Kinds of lines as they are called in a sentence. */
export const LINE_WORDS: Record<LogLine['kind'], string> = {
  start: 'start',
  stop: 'stop',
  flag: 'flag',
  unflag: 'flag taken back',
  mark: 'who broke up',
  incident: 'incident',
  tried: 'incident tried again',
  untold: 'incident taken back',
  note: 'note',
  gain: 'gain',
  meter: 'meter',
  conditions: 'wind and noise',
  switch: 'switched',
  unswitch: 'switched, taken back',
  walk: 'range walk',
  unwalk: 'range walk, taken back',
  positions: 'where the talker was',
  unpositions: 'where the talker was, taken back',
  unstart: 'start taken back',
  order: 'another order',
  redo: 'done again',
  skip: 'skipped',
  unskip: 'taken up again',
};

/** What a line says, beside its kind; empty where the kind says all. */
export function lineSays(line: LogLine): string {
  switch (line.kind) {
    case 'note':
      return line.text;
    case 'incident':
      return line.heard;
    case 'flag':
    case 'unflag':
      return line.flag;
    case 'gain':
      return `${line.stage} ${line.gainDb === null ? 'not known' : `${line.gainDb} dB`}`;
    case 'meter':
      return `${line.stage} ${line.averageDbfs ?? '?'} / ${line.peakDbfs ?? '?'} dBFS`;
    case 'conditions':
      return [line.windMs === null ? '' : `${line.windMs} m/s`, line.noiseDba === null ? '' : `${line.noiseDba} dB A`].filter(Boolean).join(', ');
    default:
      return '';
  }
}
