import { judgeAllReal } from './judgeAllReal.ts';
import { recordingsFolder } from './packages.ts';
import { REAL_GROUPS, type RealGroup } from './realTake.ts';
import { countsOf } from './realText.ts';

const n = Number(process.argv[2] ?? 4);
const groups = (process.argv[4]?.split(',') ?? REAL_GROUPS) as RealGroup[];
const judged = await judgeAllReal(recordingsFolder() as string, { tuning: process.argv[3]?.includes('t') ? n : 0, held: process.argv[3]?.includes('h') ? n : 0 }, groups);
for (const half of ['held', 'tuning'] as const)
  for (const group of groups) {
    const takes = judged.filter((t) => t.group === group && t.half === half);
    if (takes.length === 0) continue;
    const c = countsOf(takes);
    const inv: Record<string, number> = {};
    for (const t of takes)
      for (const f of t.found)
        if (![...t.events, ...(['plosive', 'handling', 'wind', 'disturbance'].includes(f.kind) ? t.pops : [])].some((e) => f.startS <= e.endS + 0.06 && f.endS >= e.startS - 0.06))
          inv[f.kind] = (inv[f.kind] ?? 0) + 1;
    const err = takes.flatMap((t) => (t.measuredFloorDbfs === null ? [] : [(t.measuredFloorDbfs - t.floorDbfs).toFixed(1)]));
    const as: Record<string, number> = {};
    for (const t of takes)
      for (const e of t.events) {
        const m = t.found.filter((f) => f.startS <= e.endS + 0.06 && f.endS >= e.startS - 0.06).map((f) => f.kind);
        const k = m.includes(e.kind as never) ? e.kind : (m[0] ?? 'none');
        as[k] = (as[k] ?? 0) + 1;
      }
    console.log(
      half,
      group.padEnd(22),
      'n',
      String(c.laid).padEnd(4),
      'named',
      (c.named / c.laid || 0).toFixed(2),
      'found',
      (c.found / c.laid || 0).toFixed(2),
      'false/min',
      c.falsePerMinute.toFixed(1),
      JSON.stringify(inv),
      'as',
      JSON.stringify(as),
      group === 'room' || group === 'calm' ? err.join(' ') + ' | ' + takes.map((t) => `${t.decayS?.toFixed(2)}:${t.measuredDecayS?.toFixed(2)}`).join(' ') : '',
    );
  }
