import { connect, type Socket } from 'node:net';
import { type DeviceLine, readDeviceLine } from '@marvet/core/domain/deviceLine';
import type { Driver, DriverSink } from './driver.ts';
import { LineReader } from './lineReader.ts';
import { nmeaLines } from './nmeaLines.ts';

const CONNECT_WITHIN_MS = 4000;

interface Wire {
  /** What a line of text says; several lines, or none yet. */
  read(text: string): DeviceLine[];
  /** What is said first once the connection stands, as if the device had said it. */
  first: DeviceLine[];
  acknowledges: boolean;
}

/** Lines of JSON over TCP, as docs/devices.md has them: Marvet connects, the device talks. */
export const jsonLinesDriver = (host: string, port: number): Driver => tcpDriver(host, port, () => ({ read: (text) => [readDeviceLine(text)], first: [], acknowledges: true }));

/** NMEA 0183 sentences over TCP. */
export const nmeaDriver = (host: string, port: number): Driver =>
  tcpDriver(host, port, () => {
    const { hello, read } = nmeaLines();
    return { read, first: [hello], acknowledges: false };
  });

function tcpDriver(host: string, port: number, wireOf: () => Wire): Driver {
  return {
    open(sink) {
      const wire = wireOf();
      const socket = connect({ host, port, timeout: CONNECT_WITHIN_MS });
      const end = onceEnded(socket, sink);
      socket.on('connect', () => {
        socket.setTimeout(0);
        socket.setNoDelay(true);
        sink.opened();
        for (const line of wire.first) sink.line(line);
      });
      socket.on('timeout', () => end('nobody answered at its address'));
      socket.on('error', (error: NodeJS.ErrnoException) => end(REASONS[error.code ?? ''] ?? error.message));
      socket.on('close', () => end('it closed the connection'));
      const wait = (waitMs: number) => {
        if (waitMs <= 0) return;
        socket.pause();
        setTimeout(() => socket.resume(), waitMs).unref();
      };
      const reader = new LineReader(
        (text) => {
          for (const line of wire.read(text)) wait(sink.line(line));
        },
        () => wait(sink.line({ is: 'wrong', why: 'a line without an end' })),
      );
      socket.on('data', (bytes) => reader.push(bytes));
      return {
        acknowledge(n) {
          if (wire.acknowledges && socket.writable) socket.write(`${JSON.stringify({ ack: n })}\n`);
        },
        close: () => end('nothing came for a while'),
      };
    },
  };
}

const REASONS: Record<string, string> = {
  ECONNREFUSED: 'nothing listens at its address',
  ENOTFOUND: 'its name is not known in this network',
  EHOSTUNREACH: 'its address cannot be reached',
  ENETUNREACH: 'its network cannot be reached',
  ECONNRESET: 'it broke the connection off',
  ETIMEDOUT: 'nobody answered at its address',
};

function onceEnded(socket: Socket, sink: DriverSink): (why: string) => void {
  let ended = false;
  return (why) => {
    if (ended) return;
    ended = true;
    socket.destroy();
    sink.closed(why);
  };
}
