import type { Span } from './report.types.ts';

/** Stretches in which levels pass `on` and stay over `off`, in seconds from the first value. */
export function spansAbove(levels: Float64Array, on: number, off: number, stepS: number): Span[] {
  const spans: Span[] = [];
  let start = -1;
  for (let index = 0; index < levels.length; index++) {
    const level = levels[index] as number;
    if (start < 0 && level >= on) start = index;
    else if (start >= 0 && level < off) {
      spans.push([start * stepS, index * stepS]);
      start = -1;
    }
  }
  if (start >= 0) spans.push([start * stepS, levels.length * stepS]);
  return spans;
}

/** Spans with those nearer to each other than `gapS` made one. They must come in order of their starts. */
export function joinSpans(spans: readonly Span[], gapS: number): Span[] {
  const out: Span[] = [];
  for (const span of spans) {
    const last = out.at(-1);
    if (last && span[0] - last[1] < gapS - 1e-9) last[1] = Math.max(last[1], span[1]);
    else out.push([span[0], span[1]]);
  }
  return out;
}

/** What is left of spans when others are taken out of them, and is at least `shortestS` long. */
export function withoutSpans(spans: readonly Span[], holes: readonly Span[], shortestS: number): Span[] {
  const sorted = [...holes].sort((a, b) => a[0] - b[0]);
  const out: Span[] = [];
  let first = 0;
  let last = Number.NEGATIVE_INFINITY;
  for (const [startS, endS] of spans) {
    // Spans come in order as a rule, so holes that are over before one are over before the next.
    if (startS < last) first = 0;
    last = startS;
    while (first < sorted.length && (sorted[first] as Span)[1] <= startS) first++;
    let at = startS;
    for (let index = first; index < sorted.length; index++) {
      const [from, to] = sorted[index] as Span;
      if (from >= endS) break;
      if (to <= at) continue;
      if (from - at >= shortestS - 1e-9) out.push([at, from]);
      at = Math.max(at, to);
    }
    if (endS - at >= shortestS - 1e-9) out.push([at, endS]);
  }
  return out;
}

/** Seconds that a stretch shares with some spans. */
export function sharedS(spans: readonly Span[], startS: number, endS: number): number {
  let covered = 0;
  for (const [from, to] of spans) covered += Math.max(0, Math.min(to, endS) - Math.max(from, startS));
  return covered;
}

/** Spans moved in time. */
export function shiftSpans(spans: readonly Span[], byS: number): Span[] {
  return spans.map(([startS, endS]) => [startS + byS, endS + byS]);
}

/** For each of some rising times whether it lies in a span, or within `reachS` of one: 1 or 0. */
export function insideSpans(times: Float64Array, spans: readonly Span[], reachS: number): Float64Array {
  let span = 0;
  return times.map((time) => {
    while (span < spans.length && (spans[span] as Span)[1] + reachS < time) span++;
    return span < spans.length && (spans[span] as Span)[0] - reachS <= time ? 1 : 0;
  });
}
