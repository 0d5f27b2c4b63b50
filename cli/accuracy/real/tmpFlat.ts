import { Cascade, highPass, highShelf, lowPass } from '@marvet/core/audio/biquad';
import { Flattened } from '@marvet/core/measure/tracks/flattened';
import { randomSource } from '@marvet/core/simulate/random';
import { recordingsFolder } from './packages.ts';
import { talkersOf, wordsOf } from './talkers.ts';

const folder = recordingsFolder() as string;
const clipTo = (x: Float64Array, share: number) => {
  const s = Float64Array.from(x, Math.abs).sort();
  const c = s[Math.floor((1 - share) * s.length)] as number;
  return x.map((v) => Math.max(-c, Math.min(c, v)));
};
const q = (h: number[], p: number) => {
  const t = h.reduce((a, b) => a + b, 0);
  let s = 0;
  for (let i = 0; i < h.length; i++) {
    s += h[i] as number;
    if (s >= p * t) return i;
  }
  return 0;
};
for (const half of ['tuning', 'held'] as const)
  for (const id of talkersOf(half)) {
    const words = wordsOf(id, folder, 30);
    const n = words.reduce((s, w) => s + w.length, 0);
    const x = new Float64Array(n);
    let at = 0;
    for (const w of words) {
      x.set(w, at);
      at += w.length;
    }
    const r = randomSource(3);
    const peak = x.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    const cases: Record<string, Float64Array> = {
      clean: x,
      lp: (() => {
        const o = Float64Array.from(x);
        new Cascade([lowPass(4000, 0.7, 48000)]).process(o, o, n);
        return o;
      })(),
      boom: (() => {
        const o = Float64Array.from(x);
        new Cascade([highShelf(1000, -12, 48000)]).process(o, o, n);
        return o;
      })(),
    };
    for (const share of [0.03, 0.06]) {
      const c = clipTo(x, share);
      cases[`c${share}noise`] = c.map((v) => v + peak * 10 ** (-50 / 20) * r.normal());
      const f = Float64Array.from(c);
      new Cascade([highPass(100, 0.7, 48000)]).process(f, f, n);
      cases[`c${share}hp`] = f;
      const l = Float64Array.from(c);
      new Cascade([lowPass(12000, 0.7, 48000)]).process(l, l, n);
      cases[`c${share}lp`] = l;
    }
    const line = Object.entries(cases)
      .map(([k, v]) => {
        const f = new Flattened(48000);
        f.push(v, n);
        return `${k} ${f.share()?.toFixed(2)}`;
      })
      .join('  ');
    console.log(half.slice(0, 1), id.padEnd(14), line);
  }
