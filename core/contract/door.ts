import type { Guest, GuestRole } from '../domain/guest.ts';

/** A device that was let in, as the laptop lists it; its key stays where it is. */
export type GuestView = Omit<Guest, 'keyHash' | 'browser' | 'certificate'>;

/** An address of this computer at which the door can be opened. */
export interface DoorAddress {
  address: string;
  /** The network interface it belongs to, or where it was set. */
  name: string;
}

/** A code that lets one device in. */
export interface DoorCode {
  code: string;
  role: GuestRole;
  trialId: string;
  listenerId: string | null;
  expiresAtMs: number;
  /** Where to go with it, and the same with the code as a picture in SVG. */
  url: string;
  qrSvg: string;
}

/** The door as the laptop sees it. */
export interface DoorState {
  open: {
    url: string;
    address: string;
    /** SHA-256 of the certificate, in pairs of hexadecimal digits. */
    fingerprint: string;
    certificateUntilMs: number;
    /** Whether the certificate was made at this opening: devices that were let in before have to come in again. */
    certificateIsNew: boolean;
  } | null;
  addresses: DoorAddress[];
  /** The code that is valid now; null where none is. */
  code: DoorCode | null;
  guests: GuestView[];
  /** Wrong codes since the door was opened, and when the last one came. */
  wrongTries: number;
  lastWrongAtMs: number | null;
}

/** Who asks: a device that was let in, or this computer itself. */
export interface WhoAmI {
  guest: Pick<Guest, 'id' | 'name' | 'role' | 'trialId' | 'listenerId' | 'expiresAtMs'> | null;
}

/** Where a device goes once it was let in. */
export interface Entered {
  goTo: string;
}
