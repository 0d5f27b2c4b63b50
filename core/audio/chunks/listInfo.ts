/** The two fields of a LIST/INFO chunk that say what a file is. */
export interface ListInfo {
  name: string | null;
  comment: string | null;
}

/** Parses the body of a LIST chunk of kind INFO; fields that run past its end are left out. */
export function readListInfo(bytes: Uint8Array): ListInfo {
  const decoder = new TextDecoder('latin1');
  const data = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const fields = new Map<string, string>();
  let at = 4;
  while (at + 8 <= bytes.byteLength) {
    const id = decoder.decode(bytes.subarray(at, at + 4));
    const length = data.getUint32(at + 4, true);
    if (at + 8 + length > bytes.byteLength) break;
    const value = decoder
      .decode(bytes.subarray(at + 8, at + 8 + length))
      .replace(/\0.*$/s, '')
      .trim();
    if (value) fields.set(id, value);
    at += 8 + length + (length % 2);
  }
  return { name: fields.get('INAM') ?? null, comment: fields.get('ICMT') ?? null };
}
