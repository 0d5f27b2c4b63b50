import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { webStream } from './webStream.ts';

const numbers = (count: number) =>
  Readable.from(
    (function* () {
      for (let each = 0; each < count; each++) yield new Uint8Array([each % 256]);
    })(),
  );

describe('a stream as the body of an answer', () => {
  it('holds what was read, in its order, to its end', async () => {
    const bytes = new Uint8Array(await new Response(webStream(numbers(1000)) as never).arrayBuffer());
    expect([...bytes]).toEqual(Array.from({ length: 1000 }, (_, each) => each % 256));
  });

  it.each([0, 1, 5])('ends after %d pieces where nobody takes it any more, and lets its source go', async (taken) => {
    const source = numbers(1e6);
    const reader = webStream(source).getReader();
    for (let piece = 0; piece < taken; piece++) await reader.read();
    const pending = reader.read();
    await reader.cancel();
    await pending;
    expect((await reader.read()).done).toBe(true);
    // What was on its way comes to nobody: were it handed on, it would be an error that nobody catches.
    await new Promise((resolve) => setImmediate(resolve));
    expect(source.destroyed).toBe(true);
  });

  it('tells who takes it that its source broke', async () => {
    const broken = new Readable({
      read() {
        this.destroy(new Error('the disk is gone'));
      },
    });
    await expect(webStream(broken).getReader().read()).rejects.toThrow('the disk is gone');
  });
});
