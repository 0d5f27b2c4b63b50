import { First1764000000000 } from './0001-first.ts';
import { RoomTone1764100000000 } from './0002-room-tone.ts';
import { ItemLevels1764200000000 } from './0003-item-levels.ts';
import { FairBefore1764300000000 } from './0004-fair-before.ts';
import { FirmGround1764400000000 } from './0005-firm-ground.ts';
import { RowChanges1764500000000 } from './0006-row-changes.ts';
import { Corrections1764600000000 } from './0007-corrections.ts';
import { Reference1764700000000 } from './0008-reference.ts';
import { Frames1764800000000 } from './0009-frames.ts';
import { Bodies1764900000000 } from './0010-bodies.ts';
import { Devices1765000000000 } from './0011-devices.ts';
import { Door1765100000000 } from './0012-door.ts';
import { Recorders1765200000000 } from './0013-recorders.ts';
import { Stereo1765300000000 } from './0014-stereo.ts';
import { Comparisons1765400000000 } from './0015-comparisons.ts';
import { BatteriesOfAYear1765500000000 } from './0016-batteries-of-a-year.ts';

/** Migrations in the order in which they are run. */
export const MIGRATIONS = [
  First1764000000000,
  RoomTone1764100000000,
  ItemLevels1764200000000,
  FairBefore1764300000000,
  FirmGround1764400000000,
  RowChanges1764500000000,
  Corrections1764600000000,
  Reference1764700000000,
  Frames1764800000000,
  Bodies1764900000000,
  Devices1765000000000,
  Door1765100000000,
  Recorders1765200000000,
  Stereo1765300000000,
  Comparisons1765400000000,
  BatteriesOfAYear1765500000000,
];
