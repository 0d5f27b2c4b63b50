import type { DeviceLine } from '@marvet/core/domain/deviceLine';

/** Where a driver hands over what comes in. */
export interface DriverSink {
  opened(): void;
  /** Takes one line. Returns for how many milliseconds no more can be taken: the driver then reads nothing. */
  line(line: DeviceLine): number;
  /** The connection ended, by whichever side; called once. */
  closed(why: string): void;
}

/** One connection to a device. */
export interface DriverLink {
  /** Says that all lines up to this number are on the disk; a way that knows no answers does nothing. */
  acknowledge(n: number): void;
  close(): void;
}

/**
 * A way in for readings. A driver opens one connection and tells what comes; that it is opened again when it ends is the hub's
 * work, and so is everything about values, time and the disk. A driver for a real device replaces a stand-in without any change
 * elsewhere.
 */
export interface Driver {
  open(sink: DriverSink): DriverLink;
}
