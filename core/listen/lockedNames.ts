/** Locked text is as long as this or a whole multiple, so that its length tells nothing of the names. */
const PADDED_TO = 4096;
const IV_BYTES = 12;

const fromHex = (hex: string) => Uint8Array.from(hex.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
const keyOf = (hex: string, use: 'encrypt' | 'decrypt') => crypto.subtle.importKey('raw', fromHex(hex), 'AES-GCM', false, [use]);

/**
 * Names by letter, locked with a key (AES in Galois/counter mode, NIST SP 800-38D).
 * @param keyHex 128 bit, hexadecimal
 * @returns the initialisation vector and what is locked, in base64
 */
export async function lockedNames(names: Readonly<Record<string, string>>, keyHex: string): Promise<string> {
  const text = new TextEncoder().encode(JSON.stringify(names));
  // What JSON ends with may be followed by spaces.
  const padded = new Uint8Array(Math.ceil(text.length / PADDED_TO) * PADDED_TO).fill(0x20);
  padded.set(text);
  const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES));
  const locked = new Uint8Array(await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, await keyOf(keyHex, 'encrypt'), padded));
  return btoa(Array.from([...iv, ...locked], (byte) => String.fromCharCode(byte)).join(''));
}

/** Names that were locked. @throws DOMException where the key is another one, or a byte was changed */
export async function openedNames(locked: string, keyHex: string): Promise<Record<string, string>> {
  const bytes = Uint8Array.from(atob(locked), (letter) => letter.charCodeAt(0));
  const key = await keyOf(keyHex, 'decrypt');
  const text = await crypto.subtle.decrypt({ name: 'AES-GCM', iv: bytes.subarray(0, IV_BYTES) }, key, bytes.subarray(IV_BYTES));
  return JSON.parse(new TextDecoder().decode(text)) as Record<string, string>;
}
