import type { Placement } from '@marvet/core/domain/placement';
import type { RigRecord } from '@marvet/core/domain/rigRecord';
import type { BodyPlace } from '@marvet/core/domain/spot';
import { LEAST_TAKES, type LearnedSpot } from '@marvet/core/place/learned';
import { radians } from '@marvet/core/place/point';
import { WORN_BANDS_HZ, type WornFigures, wornFigures } from '@marvet/core/place/wornColour';
import { type WornRisk, wornRisks } from '@marvet/core/place/wornRisks';

/** A boom to compare with. */
export interface BesideBoom {
  name: string;
  distanceM: number;
  offAxisDeg: number;
}

/** One placement with a rig, and what is to be expected of it. */
export interface WornRow {
  placement: Placement;
  rig: RigRecord | null;
  letters: string;
  figures: WornFigures | null;
  /** What takes say of its colour; it goes before what is computed. */
  learned: LearnedSpot | null;
  risks: WornRisk[];
}

/** What is to be expected of every placement with a rig. */
export function wornRows(
  placements: readonly Placement[],
  rig: RigRecord | null,
  boom: BesideBoom,
  { lettersOf, learned, shown }: { lettersOf: (placement: Placement, index: number) => string; learned: readonly LearnedSpot[]; shown: { id: string; at: BodyPlace } | null },
): WornRow[] {
  const covered = rig !== null && (rig.layers.length > 0 || rig.clothLayers > 0);
  return placements.map((placement, index) => {
    const here = shown?.id === placement.id ? { ...placement, at: shown.at } : placement;
    return {
      placement,
      rig,
      letters: lettersOf(placement, index),
      figures: wornFigures({ placement: here, rig }, { distanceM: boom.distanceM, offAxisRad: radians(boom.offAxisDeg) }),
      learned: learned.find((each) => each.spot === placement.spot && each.under === covered && each.takes >= LEAST_TAKES) ?? null,
      risks: wornRisks({ placement: here, rig }),
    };
  });
}

/** Colour of a row in the bands of {@link WORN_BANDS_HZ}: learned where it is, else computed. */
export const colourOfRow = ({ learned, figures }: WornRow): (number | null)[] => learned?.colourDb ?? figures?.colourDb ?? WORN_BANDS_HZ.map(() => null);

/** Mean colour between two frequencies; null where it is not known. */
export function colourBetween(row: WornRow, fromHz: number, toHz: number): number | null {
  const bands = colourOfRow(row).filter(
    (db, band): db is number => db !== null && (WORN_BANDS_HZ[band] as number) > 0.95 * fromHz && (WORN_BANDS_HZ[band] as number) < 1.05 * toHz,
  );
  return bands.length === 0 ? null : bands.reduce((sum, db) => sum + db, 0) / bands.length;
}
