import { understand } from '@marvet/core/measure/chapter';
import { DecayFinder } from '@marvet/core/measure/decay';
import { frameFeatures } from '@marvet/core/measure/events/frameFeatures';
import { likely } from '@marvet/core/measure/events/namer';
import { ChannelTracks } from '@marvet/core/measure/tracks/channelTracks';
import { recordingsFolder } from './packages.ts';
import { type RealGroup, realTake } from './realTake.ts';

const [group, half, from, to] = process.argv.slice(2) as [RealGroup, 'held' | 'tuning', string, string];
for (let i = +from; i < +to; i++) {
  const t = realTake(`real ${i}`, group, half, recordingsFolder() as string);
  const tracks = new ChannelTracks(48000);
  for (let s = 0; s < t.samples.length; s += 4096) {
    const b = t.samples.subarray(s, s + 4096);
    tracks.push(b, b.length);
  }
  const c = understand(tracks, 0, null, new DecayFinder());
  const f = frameFeatures(tracks, 0);
  const p = likely(f);
  for (const e of t.events) {
    const hit = c.events.filter((x) => x.startS <= e.endS + 0.06 && x.endS >= e.startS - 0.06);
    const idx = [...f.timesS.keys()].filter((k) => f.timesS[k]! > e.startS - 0.03 && f.timesS[k]! < e.endS + 0.03);
    const w = [...c.weighted.subarray(Math.floor(e.startS * 100), Math.ceil(e.endS * 100) + 1)].map((x) => 10 * Math.log10(x + 1e-15));
    const vw = (() => {
      let s = 0;
      for (let k = Math.floor(e.startS * 48000); k < e.endS * 48000; k++) s += (t.voice[k] ?? 0) ** 2;
      return 10 * Math.log10(s / ((e.endS - e.startS) * 48000) + 1e-12);
    })();
    console.log(
      i,
      e.kind,
      e.startS.toFixed(2),
      (e.endS - e.startS).toFixed(2),
      hit.length ? hit.map((h) => h.kind).join('+') : 'MISSED',
      'max',
      Object.entries(p)
        .map(([n, v]) => `${n[0]} ${Math.max(...idx.map((k) => v[k]!)).toFixed(2)}`)
        .join(' '),
      'minvoice',
      Math.min(...idx.map((k) => p.voice[k]!)).toFixed(2),
      'A',
      Math.max(...w).toFixed(0),
      'voice there',
      vw.toFixed(0),
    );
  }
}
