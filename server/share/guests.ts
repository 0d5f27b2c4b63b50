import { createHash, randomBytes } from 'node:crypto';
import { newId } from '@marvet/core/domain/identity';
import type { GuestRow } from '../store/records.ts';
import type { Store } from '../store/store.ts';
import type { Grant } from './codes.ts';

/** How often it is written down that a device was seen. */
const SEEN_EVERY_MS = 15_000;

const hashOf = (key: string) => createHash('sha256').update(key).digest('hex');

/** Why a device that shows a key is not let in. */
export type Refusal = 'unknown' | 'put out' | 'over' | 'other certificate' | 'other browser';

/** Lets a device in: it alone gets the key, of which only the hash is kept. */
export async function letIn(
  store: Store,
  grant: Grant,
  device: { name: string; browser: string; certificate: string; untilMs: number },
  nowMs = Date.now(),
): Promise<{ guest: GuestRow; key: string }> {
  const key = randomBytes(32).toString('base64url');
  const { name, browser, certificate, untilMs } = device;
  const seen = { enteredAtMs: nowMs, seenAtMs: nowMs, expiresAtMs: untilMs, putOutAtMs: null, clockBehindMs: null, refused: null };
  const guest: GuestRow = { ...grant, ...seen, id: newId(), name, browser, certificate, keyHash: hashOf(key) };
  await store.write((tables) => tables.guests.insert(guest));
  return { guest, key };
}

/** The device that a key belongs to, or why it is refused. A key that turns up in another browser is told to the laptop. */
export async function guestByKey(
  store: Store,
  key: string,
  now: { browser: string; certificate: string },
  nowMs = Date.now(),
): Promise<{ guest: GuestRow } | { refusal: Refusal }> {
  const guest = await store.guests.findOneBy({ keyHash: hashOf(key) });
  if (!guest) return { refusal: 'unknown' };
  if (guest.putOutAtMs !== null) return { refusal: 'put out' };
  if (guest.expiresAtMs <= nowMs) return { refusal: 'over' };
  if (guest.certificate !== now.certificate) return { refusal: 'other certificate' };
  if (guest.browser !== now.browser) {
    await store.write((tables) => tables.guests.update(guest.id, { refused: 'Its key was used by another browser, which was refused. Put it out if nobody updated the phone.' }));
    return { refusal: 'other browser' };
  }
  if (nowMs - guest.seenAtMs > SEEN_EVERY_MS) await store.write((tables) => tables.guests.update(guest.id, { seenAtMs: nowMs }));
  return { guest };
}

/** Puts a device out; its key opens nothing from the next request on. */
export async function putOut(store: Store, id: string, nowMs = Date.now()): Promise<boolean> {
  const { affected } = await store.write((tables) => tables.guests.update(id, { putOutAtMs: nowMs }));
  return Boolean(affected);
}
