import { writeFileSync } from 'node:fs';
import { ChannelTracks } from '@marvet/core/measure/tracks/channelTracks';
import { coarser } from '@marvet/core/measure/tracks/frames';
import { recordingsFolder } from './packages.ts';
import { realTake } from './realTake.ts';

const out: unknown[] = [];
for (const half of ['tuning', 'held'] as const)
  for (let i = 0; i < (half === 'tuning' ? 24 : 20); i++) {
    const take = realTake(`${half === 'tuning' ? 'decay' : 'real'} ${i}`, 'room', half, recordingsFolder() as string);
    const tracks = new ChannelTracks(48000);
    for (let s = 0; s < take.samples.length; s += 4096) {
      const b = take.samples.subarray(s, s + 4096);
      tracks.push(b, b.length);
    }
    tracks.flush();
    const w = coarser(tracks.fine.view(), 5);
    const oct = tracks.highBands.sums(0, 7);
    out.push({
      half,
      decayS: take.decayS,
      floorDbfs: take.floorDbfs,
      a: Array.from(w, (p) => +(10 * Math.log10(p + 1e-15)).toFixed(2)),
      hop: tracks.highBands.hopS,
      m: Array.from(oct, (p) => +(10 * Math.log10(p + 1e-15)).toFixed(2)),
    });
    process.stderr.write('.');
  }
writeFileSync('/tmp/rooms.json', JSON.stringify(out));
