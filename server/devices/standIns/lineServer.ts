import { createServer, type Server, type Socket } from 'node:net';
import type { HelloLine, ReadingLine } from '@marvet/core/domain/deviceLine';
import { LineReader } from '../lineReader.ts';

/** What a stand-in keeps while nobody acknowledges: ten minutes at ten lines a second. */
const MOST_KEPT = 6000;
/** Whoever reads so slowly is let go: the lines are kept. */
const MOST_WAITING_BYTES = 4 << 20;

/** A server on the loopback that talks like a device. */
export interface StandInServer {
  port: number;
  close(): Promise<void>;
}

/** @param onText what came from whoever is connected @param greet is said to each that connects */
export async function lineServer(
  port: number,
  greet: (say: (text: string) => void) => void,
  onText: (text: string) => void = () => undefined,
): Promise<StandInServer & { say(text: string): void; connected(): number }> {
  const sockets = new Set<Socket>();
  const send = (socket: Socket, text: string) => {
    if (socket.writableLength > MOST_WAITING_BYTES) socket.destroy();
    else socket.write(`${text}\r\n`);
  };
  const server: Server = createServer((socket) => {
    sockets.add(socket);
    const reader = new LineReader(onText, () => socket.destroy());
    socket.on('data', (bytes) => reader.push(bytes));
    socket.on('close', () => sockets.delete(socket));
    socket.on('error', () => socket.destroy());
    greet((text) => send(socket, text));
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  const address = server.address();
  return {
    port: typeof address === 'object' && address ? address.port : port,
    say(text) {
      for (const socket of sockets) send(socket, text);
    },
    connected: () => sockets.size,
    async close() {
      for (const socket of sockets) socket.destroy();
      await new Promise<void>((resolve) => server.close(() => resolve()));
    },
  };
}

/** What a device that speaks lines of JSON tells, moment by moment. */
export interface TalkingDevice {
  hello: Omit<HelloLine, 'hello' | 'now'>;
  everyMs: number;
  read(atMs: number): Omit<ReadingLine, 'n' | 'at'>;
}

/**
 * A device that speaks lines of JSON as docs/devices.md has them: it counts its lines, keeps them until they are acknowledged,
 * and sends what it kept to whoever connects again.
 */
export async function talkingDevice(port: number, device: TalkingDevice): Promise<StandInServer & { quiet(): void; unacknowledged(): number }> {
  let kept: { n: number; text: string }[] = [];
  let n = 0;
  const session = `${Date.now().toString(36)}`;
  const server = await lineServer(
    port,
    (say) => {
      say(JSON.stringify({ hello: 1, ...device.hello, session, now: Date.now() }));
      for (const { text } of kept) say(text);
    },
    (text) => {
      const ack = ackOf(text);
      if (ack !== null) kept = kept.filter((line) => line.n > ack);
    },
  );
  const timer = setInterval(() => {
    const at = Date.now();
    const text = JSON.stringify({ n: ++n, at, ...device.read(at) });
    kept = [...kept.slice(1 - MOST_KEPT), { n, text }];
    server.say(text);
  }, device.everyMs);
  return {
    port: server.port,
    /** Tells nothing new, and goes on to hand over what it kept. */
    quiet: () => clearInterval(timer),
    unacknowledged: () => kept.length,
    async close() {
      clearInterval(timer);
      await server.close();
    },
  };
}

function ackOf(text: string): number | null {
  try {
    const { ack } = JSON.parse(text) as { ack?: unknown };
    return typeof ack === 'number' ? ack : null;
  } catch {
    // Whatever else is said to a device is none of its business.
    return null;
  }
}
