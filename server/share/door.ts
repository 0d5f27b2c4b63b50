import { createServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import { type ServerType, serve } from '@hono/node-server';
import type { DoorAddress, DoorCode, DoorState } from '@marvet/core/contract/door';
import qrcode from 'qrcode';
import { ApiError } from '../api/http.ts';
import type { Store } from '../store/store.ts';
import { type Certificate, certificateFor } from './certificate.ts';
import { type Codes, type Grant, openCodes } from './codes.ts';
import { type DoorParts, doorApp } from './doorApp.ts';

/** How long the door's certificate may last: today, or a week of shooting. */
export const DOOR_DAYS = [1, 7] as const;
const DAY_MS = 86_400_000;
/** Devices that were put out, or whose day is over, are listed for so long. */
const LISTED_MS = DAY_MS;

/** The door for other devices: closed until it is opened, and closed again with the server. */
export interface Door {
  state(): Promise<DoorState>;
  /** @throws ApiError 422 where the address is none of this computer's, 409 where the port is taken */
  open(address: string, days: number): Promise<void>;
  close(): Promise<void>;
  /** A new code; the one before is void. @throws ApiError 409 where the door is closed */
  giveCode(grant: Grant): Promise<void>;
  withdrawCode(): void;
  /** Ends every connection: those of devices that are still in come back by themselves. */
  hangUp(): void;
}

/** What the door needs: where things are kept, and what stands behind it. */
export interface DoorSetting extends Pick<DoorParts, 'store' | 'inner' | 'pageFolder'> {
  dataFolder: string;
  port: number;
  /** An address that is offered beside those of the machine; null is none. */
  extraAddress: string | null;
}

interface Opened {
  server: ServerType;
  address: string;
  port: number;
  certificate: Certificate;
  codes: Codes;
  /** Closes the door when its certificate ends. */
  timer: ReturnType<typeof setTimeout>;
}

export function openDoor(setting: DoorSetting): Door {
  let opened: Opened | null = null;
  const urlOf = ({ address, port }: Opened) => `https://${address}:${port}`;

  async function close(): Promise<void> {
    const closing = opened;
    opened = null;
    if (!closing) return;
    const { server, timer } = closing;
    clearTimeout(timer);
    const gone = new Promise<void>((resolve) => server.close(() => resolve()));
    if ('closeAllConnections' in server) server.closeAllConnections();
    await gone;
  }

  return {
    close,
    async open(address, days) {
      if (!addressesOf(setting.extraAddress).some((each) => each.address === address)) {
        throw new ApiError(422, 'invalid', `${address} is no address of this computer. Join the network first, then choose from the list.`, {
          address: 'Choose an address of this computer',
        });
      }
      await close();
      const certificate = await certificateFor(setting.dataFolder, address, days * DAY_MS);
      const codes = openCodes();
      // The port is known once it listens.
      let host = '';
      const app = doorApp({ ...setting, codes, host: () => host, certificate });
      const server = await listen(app.fetch, address, setting.port, certificate);
      const { port } = server.address() as AddressInfo;
      host = `${address}:${port}`;
      const timer = setTimeout(() => void close().catch((error: unknown) => console.error('The door could not be closed:', error)), certificate.untilMs - Date.now()).unref();
      opened = { server, address, port, certificate, codes, timer };
    },
    async giveCode(grant) {
      if (!opened) throw new ApiError(409, 'closed', 'The door is closed. Open it first.');
      opened.codes.give(grant);
    },
    withdrawCode() {
      opened?.codes.withdraw();
    },
    hangUp() {
      if (opened && 'closeAllConnections' in opened.server) opened.server.closeAllConnections();
    },
    async state() {
      const guests = await listed(setting.store);
      const addresses = addressesOf(setting.extraAddress);
      if (!opened) return { open: null, addresses, code: null, guests, wrongTries: 0, lastWrongAtMs: null };
      const { certificate, codes, address } = opened;
      const { fingerprint, untilMs, isNew } = certificate;
      return {
        open: { url: urlOf(opened), address, fingerprint, certificateUntilMs: untilMs, certificateIsNew: isNew },
        addresses,
        code: await codeOf(codes, urlOf(opened)),
        guests,
        wrongTries: codes.wrongTries(),
        lastWrongAtMs: codes.lastWrongAtMs(),
      };
    },
  };
}

async function codeOf(codes: Codes, url: string): Promise<DoorCode | null> {
  const current = codes.current();
  if (!current) return null;
  const { code, role, trialId, listenerId, expiresAtMs } = current;
  // Behind the sign the code never leaves the phone's browser but by the form.
  const qrSvg = await qrcode.toString(`${url}/enter#${code}`, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' });
  return { code, role, trialId, listenerId, expiresAtMs, url: `${url}/enter`, qrSvg };
}

async function listed(store: Store): Promise<DoorState['guests']> {
  const sinceMs = Date.now() - LISTED_MS;
  const rows = await store.guests.find({ order: { enteredAtMs: 'DESC' } });
  return rows
    .filter(({ expiresAtMs, putOutAtMs }) => Math.min(expiresAtMs, putOutAtMs ?? expiresAtMs) > sinceMs)
    .map(({ keyHash: _key, browser: _browser, certificate: _shown, ...guest }) => guest);
}

/** Addresses of this computer on its networks, and one that was set. */
function addressesOf(extra: string | null): DoorAddress[] {
  const own = Object.entries(networkInterfaces()).flatMap(([name, found]) =>
    (found ?? []).filter(({ internal, family }) => !internal && family === 'IPv4').map(({ address }) => ({ address, name })),
  );
  return extra === null || own.some(({ address }) => address === extra) ? own : [...own, { address: extra, name: 'set with DOOR_ADDRESS' }];
}

function listen(fetch: (request: Request) => Response | Promise<Response>, hostname: string, port: number, { key, cert, authority }: Certificate): Promise<ServerType> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch, hostname, port, createServer, serverOptions: { key, cert: `${cert}\n${authority}`, minVersion: 'TLSv1.2' } }, () => resolve(server));
    server.on('error', (error: NodeJS.ErrnoException) => {
      const why = error.code === 'EADDRINUSE' ? `Port ${port} of ${hostname} is taken; choose another with DOOR_PORT.` : error.message;
      reject(new ApiError(409, 'not-open', `The door cannot be opened: ${why}`));
    });
  });
}
