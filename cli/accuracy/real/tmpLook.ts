import { reportOf } from '../judge.ts';
import { recordingsFolder } from './packages.ts';
import { type RealGroup, realTake } from './realTake.ts';

const [group, half, from, to] = process.argv.slice(2) as [RealGroup, 'held' | 'tuning', string, string];
for (let i = +from; i < +to; i++) {
  const t = realTake(`real ${i}`, group, half, recordingsFolder() as string);
  const r = reportOf(t.samples, 48000);
  console.log(
    'take',
    i,
    (t.samples.length / 48000).toFixed(1),
    'pops',
    t.pops.map((p) => p.startS.toFixed(2)).join(' '),
    '| laid',
    t.events.map((e) => `${e.kind[0]}${e.startS.toFixed(2)}-${e.endS.toFixed(2)}`).join(' '),
  );
  console.log('   ', r.events.map((e) => `${e.kind}@${e.startS.toFixed(2)}-${e.endS.toFixed(2)}(${e.severityDb.toFixed(0)})`).join(' '));
}
