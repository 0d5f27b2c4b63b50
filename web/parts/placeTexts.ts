import type { Placement } from '@marvet/core/domain/placement';
import type { RigRecord } from '@marvet/core/domain/rigRecord';

/** A placement in a line: what is known of it. */
export function placementText({ on, distanceM, offAxisDeg, belowChinM, heightM, remark }: Placement): string {
  const height =
    on === 'body' ? belowChinM !== null && `${Math.abs(belowChinM)} m ${belowChinM < 0 ? 'over' : 'under'} the chin` : heightM !== null && `${heightM} m over the ground`;
  return [`on ${on}`, distanceM !== null && `${distanceM} m from the mouth`, offAxisDeg !== null && `${offAxisDeg}° off its axis`, height, remark].filter(Boolean).join(', ');
}

/** A rig in a line: what is known of it. */
export function rigText({ fixing, clothLayers, clothLossDb, cloth, capLiftDb, strainRelief, onSkin, remark }: RigRecord): string {
  const layers = clothLayers > 0 && `${clothLayers} ${clothLayers === 1 ? 'layer' : 'layers'}${cloth && ` of ${cloth}`}${clothLossDb === null ? '' : `, ${clothLossDb} dB each`}`;
  return [
    fixing,
    layers,
    capLiftDb !== null && `cap lifts ${capLiftDb} dB`,
    strainRelief && 'with strain relief',
    strainRelief === false && 'no strain relief',
    onSkin && 'on skin',
    remark,
  ]
    .filter(Boolean)
    .join(', ');
}
