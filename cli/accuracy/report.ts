import { EVENT_KINDS } from '@marvet/core/domain/measureId';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { type Calls, callsText } from './calls.ts';
import { ACCURACY_FIGURES, type AccuracyFigure, type Judged, score } from './judge.ts';
import type { RealProof } from './real/judgeAllReal.ts';
import { realText } from './real/realText.ts';
import { type Half, talkersOf } from './real/talkers.ts';
import { GROUPS } from './specs.ts';
import type { SpeedComparison } from './speed.ts';

const FIGURES: Record<AccuracyFigure, { label: string; unit: string; tolerance: number; on: string }> = {
  floorDbfs: { label: 'noise floor', unit: 'dB', tolerance: 0.3, on: 'clean and room takes with white noise' },
  floorSlopedDbfs: { label: 'noise floor, steep noise', unit: 'dB', tolerance: 0.5, on: 'clean and room takes with noise that falls by 3 or 5 dB an octave' },
  sibilanceDb: { label: 'sibilance', unit: 'dB', tolerance: 1.5, on: 'clean and room takes, against the words alone' },
  proximityDb: { label: 'proximity', unit: 'dB', tolerance: 1.5, on: 'clean and room takes, against the words alone' },
  pumpingDb: { label: 'pumping', unit: 'dB', tolerance: 1.5, on: 'takes with an automatic level, against its gain' },
  reverberation: { label: 'reverberation, relative', unit: '%', tolerance: 20, on: 'room takes, against the decay of the impulse response' },
};
const WANTED: Record<string, number> = { dropout: 0.95, click: 0.95, clip: 0.95, plosive: 0.85, wind: 0.85, handling: 0.85, rustle: 0.85 };

const sortedAbsolute = (values: readonly number[]) => values.map(Math.abs).sort((a, b) => a - b);
const at = (sorted: readonly number[], share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
const percent = (share: number) => (Number.isFinite(share) ? share.toFixed(2) : 'none');

function figureRows(takes: readonly Judged[], weak: string[]): string[] {
  return ACCURACY_FIGURES.map((id) => {
    const { label, unit, tolerance, on } = FIGURES[id];
    const scale = unit === '%' ? 100 : 1;
    const errors = takes.flatMap((take) => take.errors[id] ?? []).map((error) => error * scale);
    const sorted = sortedAbsolute(errors);
    const shown = (value: number) => (unit === '%' ? value.toFixed(0) : value.toFixed(2));
    if (at(sorted, 0.95) > tolerance) {
      weak.push(
        `${label}: ${Math.round((100 * sorted.filter((error) => error > tolerance).length) / sorted.length)} % of ${sorted.length} takes are further off than ${tolerance} ${unit}.`,
      );
    }
    return `| ${label} | ${on} | ${errors.length} | ${shown(at(sorted, 0.5))} | ${shown(at(sorted, 0.95))} | ${shown(at(sorted, 1))} | ${tolerance} ${unit} |`;
  });
}

function eventRows(takes: readonly Judged[], weak: string[], set: string): string[] {
  const clean = takes.filter((take) => take.group === 'clean' || take.group === 'room');
  const minutes = clean.reduce((sum, take) => sum + take.lengthS, 0) / 60;
  return EVENT_KINDS.map((kind) => {
    const inGroup = score(
      takes.filter((take) => take.group === kind || take.group === 'mixed'),
      kind,
    );
    const everywhere = score(takes, kind);
    const recall = inGroup.found / (inGroup.found + inGroup.missed);
    const precision = everywhere.right / (everywhere.right + everywhere.invented);
    const falseAMinute = score(clean, kind).invented / minutes;
    const wanted = WANTED[kind] ?? 0;
    for (const [name, value] of [
      ['recall', recall],
      ['precision', precision],
    ] as const) {
      if (value < wanted) weak.push(`${kind}: ${name} ${percent(value)} on ${set} takes, wanted ${wanted}.`);
    }
    return `| ${kind} | ${inGroup.found + inGroup.missed} | ${percent(recall)} | ${percent(precision)} | ${wanted} | ${falseAMinute.toFixed(2)} |`;
  });
}

function speedText(native: SpeedComparison | null): string {
  if (!native) return 'The native filter is not on this machine, so nothing was compared.';
  const ratios = native.oursS.map((ours, round) => ours / (native.nativeS[round] as number)).sort((a, b) => a - b);
  const each = (seconds: readonly number[]) => seconds.map((value) => value.toFixed(1)).join(', ');
  return `Seconds of processor time on one core for the whole report of ${native.audioS / 60} minutes of stereo at 48 kHz and 24 bit, ${native.oursS.length} rounds in turn with a native command-line loudness filter with true peak on the same file:

| | seconds |
|---|---|
| whole report | ${each(native.oursS)} |
| native filter, loudness and true peak alone | ${each(native.nativeS)} |
| ratio, round by round | ${ratios.map((ratio) => ratio.toFixed(2)).join(', ')} (median ${at(ratios, 0.5).toFixed(2)}) |
| ratio of the least disturbed round of each | ${(Math.min(...native.oursS) / Math.min(...native.nativeS)).toFixed(2)} |`;
}

/** docs/accuracy.md: where it is weak, how right events and figures are, and how fast. */
export function accuracyText(held: readonly Judged[], tuning: readonly Judged[], real: RealProof | null, native: SpeedComparison | null, calls: readonly Calls[]): string {
  const weak: string[] = [];
  const figures = figureRows(held, weak);
  const events = eventRows(held, weak, 'held-out');
  const tuned = eventRows(tuning, [], 'tuning');
  const minutes = held.reduce((sum, take) => sum + take.lengthS, 0) / 60;
  const recorded = real && realText(real);
  return `# Accuracy

Written by \`npm run accuracy\`; not by hand. Method version ${METHOD_VERSION}. Standards' own cases are unit tests beside the code.

## Where it is weak

${[...(recorded?.weak ?? ['Recorded talkers: not on this machine, so nothing is told of them.']), ...weak].map((line) => `- ${line}`).join('\n')}
- Reverberation is read from how the sound falls before each rise: in a dry place it tells how the talker's words die away, and where few falls are clear of the noise there is no figure.
- Peaks that were flattened and then went through a high-pass of 100 Hz and more are not told from a natural voice: the filter tilts their tops.
- Short sounds that ring at a pitch, as drops, beeps and bells do, are taken for a voice half of the time; drums of music are taken for knocks.
- A knock that falls on the start of a word counts as a plosive, by definition and in the labels of the simulator: knocks are laid where no vowel breaks out of a gap, plosives where one does.
- A click among clipped samples cannot be told from the corner of a flat top; none is laid there.
- Noise that falls towards the top has few independent moments in a second of pauses: its floor wavers by some tenths of a decibel from pause to pause, which is part of the error below.

## Recorded talkers

${recorded ? realIntroduction(real) : 'The packages of recorded speech and sounds could not be fetched here.'}

${recorded?.tables ?? ''}

## The simulator's own takes

${held.length} takes of known truth (${minutes.toFixed(0)} minutes): ${held.length / GROUPS.length} of each group (${GROUPS.join(', ')}), over two synthetic talkers, three rooms and the open, worn and boomed microphones, 16 and 24 bit and float. These are the held-out seeds, named \`unseen N\`; thresholds were set while looking at the seeds named \`tuning N\` only, which stand apart below. What was simulated, labelled and tuned in one house proves little by itself: the tables above count for more.

Absolute errors of figures: median, 95th percentile, worst.

| figure | on | takes | median | 95 % | worst | within |
|---|---|---|---|---|---|---|
${figures.join('\n')}

An event counts as found when one of its kind lies within 60 ms of it. Recall on the takes of its own group and the mixed ones; precision over all takes of all groups, so that one fault taken for another counts against it. False events a minute are those on clean speech (groups clean and room).

| kind | events | recall | precision | wanted | false a minute on clean speech |
|---|---|---|---|---|---|
${events.join('\n')}

The same on the ${tuning.length} takes that thresholds were set with:

| kind | events | recall | precision | wanted | false a minute on clean speech |
|---|---|---|---|---|---|
${tuned.join('\n')}

## Verdicts

${callsText(calls)}

## Speed

${speedText(native)}
`;
}

function realIntroduction({ takes: real }: RealProof): string {
  const minutes = (half: Half) => (real.filter((take) => take.half === half).reduce((sum, take) => sum + take.lengthS, 0) / 60).toFixed(0);
  return `People who were recorded saying words and sentences, at home and in studios (packages of Debian with recorded speech, ${talkersOf('held').length} talkers held out and ${talkersOf('tuning').length} to set thresholds with), with recorded things, link faults that are exact by nature, turbulence and rooms laid over them. Talkers and sound files of the two halves are apart. Held half: ${minutes('held')} minutes; tuning half: ${minutes('tuning')}. Words lie at -26 dBFS over noise of -62 to -70; the noise of each talker's own recording goes on between the words, which are of the half of the clips that have least of it (a noise that begins and ends with each word would be a gate's doing, and no clean speech); music is played on without a seam; knocks are recorded ones through a low-pass of 120 to 450 Hz, 3 to 15 dB over the voice at their peak; in the tuning half, which the trees that name events were grown from, talkers and things are also heard faster and slower, which the held half is not; rubbing is recorded or rendered friction in the range of wool, cotton or nylon, 6 to 16 dB under the voice; things of other kinds are called disturbances. What words cover wholly, so that nowhere it stands out of them and of the noise for 60 ms, or for half of what it lasts, is no event, and counted apart. The trees that name events were grown from takes in which the talkers' noise did end with each word. Pops of a talker's own are no mistakes: where the dry recording has sound under 60 Hz within 12 dB of its words, an event with a name of low sound is not counted as false.`;
}
