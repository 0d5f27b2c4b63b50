import type { BroughtIn, UploadResult } from '@marvet/core/contract/answers';
import { PAGE_HEADER } from '@marvet/core/contract/events';
import { PAGE_ID } from './api.ts';

/** Told while a file is sent: how much of it has gone, 0 to 1, and what there is to say. */
export type OnSent = (share: number, said: string) => void;

/** What is told of a file: its name, when it was last written by the clock of its recorder, and the folder that it lay in. */
function arrivalOf(file: File): Record<string, string> {
  const path = file.webkitRelativePath || (file as File & { path?: string }).path || '';
  const folder = path
    .split('/')
    .slice(0, -1)
    .filter((part) => part !== '' && part !== '.')
    .join('/');
  return { name: file.name, modifiedMs: String(file.lastModified), ...(folder ? { folder } : {}) };
}

/** Larger files go piece by piece, each of which is kept. */
const PIECE_BYTES = 8 << 20;

/**
 * Sends a sound file to the server. Where the connection breaks off it goes on by itself once it is there again: of a large file from where
 * it stopped, also after the page was closed and the file was dropped anew.
 * @returns the result, or rejects with a sentence for the person
 */
export async function upload(trialId: string, file: File, onSent: OnSent, signal: AbortSignal): Promise<UploadResult> {
  const files = `/api/trials/${trialId}/files`;
  const share = (sentBytes: number) => onSent(file.size > 0 ? sentBytes / file.size : 0, '');
  const patiently = <Result>(work: () => Promise<Result>) => untilReached(work, () => onSent(0, AWAY), signal);
  const query = new URLSearchParams(arrivalOf(file));
  if (file.size <= PIECE_BYTES) return patiently(() => sent<UploadResult>('POST', `${files}?${query}`, file, (part) => share(part * file.size), signal));
  query.set('sizeBytes', String(file.size));
  const arriving = `${files}/arriving?${query}`;
  const here = () => sent<{ receivedBytes: number }>('GET', arriving, null, () => undefined, signal);
  for (let { receivedBytes: at } = await patiently(here); at < file.size; ) {
    const piece = file.slice(at, at + PIECE_BYTES);
    share(at);
    const onPart = (part: number) => share(at + part * piece.size);
    // After a break it is asked anew how much of the piece came: it may be a part of it, or all.
    let broke = false;
    ({ receivedBytes: at } = await patiently(() => {
      if (broke) return here();
      broke = true;
      return sent<{ receivedBytes: number }>('PUT', `${arriving}&fromByte=${at}`, piece, onPart, signal);
    }));
  }
  return patiently(() => sent<UploadResult>('POST', arriving, null, () => undefined, signal));
}

/** Streams an archive of a whole trial to the server. @returns what came in, or rejects with a sentence for the person */
export function bringTrial(file: File, onProgress: (share: number) => void, signal: AbortSignal): Promise<BroughtIn> {
  return sent('POST', '/api/trials/archive', file, onProgress, signal);
}

const AWAY = 'the server cannot be reached; it goes on by itself';
/** Why nothing came back: nobody answered. */
class NotReached extends Error {}

const [FIRST_WAIT_MS, LONGEST_WAIT_MS] = [500, 15_000];

/** Tries again for as long as nobody answers, ever less often. */
async function untilReached<Result>(work: () => Promise<Result>, onAway: () => void, signal: AbortSignal): Promise<Result> {
  for (let waitMs = FIRST_WAIT_MS; ; waitMs = Math.min(LONGEST_WAIT_MS, 2 * waitMs)) {
    try {
      return await work();
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      onAway();
      await waited(waitMs, signal);
    }
  }
}

function waited(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      reject(new Error('Stopped'));
    });
  });
}

/** XMLHttpRequest rather than fetch, since only it tells how much of a body has gone. */
function sent<Result>(method: 'GET' | 'PUT' | 'POST', url: string, body: Blob | null, onProgress: (share: number) => void, signal: AbortSignal): Promise<Result> {
  return new Promise((resolve, reject) => {
    if (signal.aborted) return reject(new Error('Stopped'));
    const request = new XMLHttpRequest();
    request.open(method, url);
    request.responseType = 'json';
    if (body) request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.setRequestHeader(PAGE_HEADER, PAGE_ID);
    request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
    request.onload = () => {
      if (request.status < 300) resolve(request.response as Result);
      else reject(new Error((request.response as { error?: { message?: string } } | null)?.error?.message ?? `The server refused it (${request.status})`));
    };
    // Nothing went through: because nobody answers, or because the file was moved or changed since it was chosen, which trying again does not mend.
    request.onerror = () =>
      void Promise.resolve(body?.slice(0, 1).arrayBuffer()).then(
        () => reject(new NotReached('The server cannot be reached. Try again when it is back.')),
        () => reject(new Error('It cannot be read any more: it was moved or changed since it was chosen. Choose it again.')),
      );
    request.onabort = () => reject(new Error('Stopped'));
    signal.addEventListener('abort', () => request.abort());
    request.send(body);
  });
}
