const CHUNK = 8192;

/** Bytes of which nobody knows beforehand how many there will be. */
export class GrowingBytes {
  private bytes = new Uint8Array(CHUNK);
  length = 0;

  push(value: number): void {
    if (this.length === this.bytes.length) {
      const larger = new Uint8Array(2 * this.bytes.length);
      larger.set(this.bytes);
      this.bytes = larger;
    }
    this.bytes[this.length++] = value;
  }

  /** The bytes as text (RFC 4648, section 4), so that they go into JSON. */
  base64(): string {
    let text = '';
    for (let at = 0; at < this.length; at += CHUNK) text += String.fromCharCode(...this.bytes.subarray(at, Math.min(this.length, at + CHUNK)));
    return btoa(text);
  }
}

/** The bytes of a text of {@link GrowingBytes.base64}. */
export function bytesOf(base64: string): Uint8Array {
  return Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
}
