import type { Readable } from 'node:stream';

/**
 * A stream of the disk as a body of an answer, read as fast as it is taken. Whoever stops taking it ends it, at any moment: the way
 * that Node itself offers still hands on what was on its way then, into a stream that is closed, and that would end the server.
 */
export function webStream(readable: Readable): ReadableStream<Uint8Array> {
  const chunks = readable[Symbol.asyncIterator]() as AsyncIterator<Uint8Array>;
  let given = false;
  return new ReadableStream<Uint8Array>({
    async pull(controller) {
      const { value, done } = await chunks.next();
      if (given) return;
      if (done) controller.close();
      else controller.enqueue(value);
    },
    cancel() {
      given = true;
      readable.destroy();
    },
  });
}
