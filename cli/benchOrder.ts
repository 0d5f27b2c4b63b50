import { type FactorKind, type Setup, setupKey } from '@marvet/core/domain/factor';
import { planDraftSchema } from '@marvet/core/domain/plan';
import { gatherTakes } from '@marvet/core/plan/gather';
import { matrixSetups } from '@marvet/core/plan/matrix';
import { orderTakes } from '@marvet/core/plan/order/orderTakes';

/** Setups of a matrix with holes and with costs that differ with direction, as many as are asked for. */
function holedPlan(setups: number) {
  const sizes: Record<string, number> = { station: 6, candidate: 5, distance: 6, windscreen: 3, script: 6 };
  const factors = Object.entries(sizes).map(([kind, count]) => ({
    kind: kind as FactorKind,
    name: kind,
    unit: '',
    levels: Array.from({ length: count }, (_, index) => ({ id: `${kind}${index}`, label: `${index}`, value: null, ticked: true })),
  }));
  const changeExceptions = [
    { kind: 'windscreen', fromId: 'windscreen1', toId: 'windscreen0', seconds: 20 },
    { kind: 'station', fromId: 'station0', toId: 'station3', seconds: 2400 },
  ];
  const plan = planDraftSchema.parse({ factors, changeExceptions });
  // A hash of the key picks the cells, so that they lie as if by chance and are the same in each run.
  const hash = (setup: Setup) => [...setupKey(setup)].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 1_000_003, 7);
  const chosen = matrixSetups(plan.factors)
    .sort((a, b) => hash(a) - hash(b))
    .slice(0, setups);
  return { plan, takes: gatherTakes(chosen, []) };
}

/** Prints how long ordering takes and how far its result is from the bound. */
export function benchOrder(): void {
  const runs = [250, 1000, 2000].map((setups) => {
    const { plan, takes } = holedPlan(setups);
    const before = performance.now();
    const { costS, boundS } = orderTakes(takes, { ...plan, daylightStationIds: new Set() });
    return { setups, lengthS: (performance.now() - before) / 1000, ratio: costS / boundS };
  });
  console.log('Order of takes, each a setup of its own:');
  for (const { setups, lengthS, ratio } of runs) {
    const against = lengthS / (runs[0]?.lengthS ?? 1);
    console.log(
      `  ${String(setups).padStart(4)} setups in ${lengthS.toFixed(2)} s, ${against.toFixed(1)} times as long as ${runs[0]?.setups}; change time ${ratio.toFixed(2)} times the bound`,
    );
  }
}
