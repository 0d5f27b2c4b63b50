import type { Context } from 'hono';
import type { GuestRow } from '../store/records.ts';

/** What the door hands on with a request of a device that it let in; nothing of a request can set it. */
export interface DoorBindings {
  guest: GuestRow;
}

/** The device that was let in and asks; null on this computer. */
export function guestOf(context: Context): GuestRow | null {
  return (context.env as Partial<DoorBindings> | undefined)?.guest ?? null;
}
