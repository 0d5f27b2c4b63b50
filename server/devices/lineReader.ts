/** A longer line is none of a device: it is left out up to its end, and told. */
const LONGEST = 65_536;

/** Cuts a stream of bytes into lines; what it keeps is never more than one line. */
export class LineReader {
  private kept = '';
  private skipping = false;
  private readonly decoder = new TextDecoder();

  constructor(
    private readonly onLine: (line: string) => void,
    private readonly onTooLong: () => void,
  ) {}

  push(bytes: Uint8Array): void {
    const parts = this.decoder.decode(bytes, { stream: true }).split('\n');
    const last = parts.pop() as string;
    for (const part of parts) this.end(part);
    if (this.skipping) return;
    this.kept += last;
    if (this.kept.length <= LONGEST) return;
    this.kept = '';
    this.skipping = true;
    this.onTooLong();
  }

  private end(part: string): void {
    const line = this.kept + part;
    const skipped = this.skipping;
    this.kept = '';
    this.skipping = false;
    if (skipped) return;
    if (line.length > LONGEST) this.onTooLong();
    else if (line.trim() !== '') this.onLine(line.trim());
  }
}
