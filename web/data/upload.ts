import type { BroughtIn, UploadResult } from '@marvet/core/contract/answers';
import { PAGE_HEADER } from '@marvet/core/contract/events';
import { PAGE_ID } from './api.ts';

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

/** Streams a sound file to the server. @returns the result, or rejects with a sentence for the person */
export function upload(trialId: string, file: File, onProgress: (share: number) => void, signal: AbortSignal): Promise<UploadResult> {
  return sent(`/api/trials/${trialId}/files?${new URLSearchParams(arrivalOf(file))}`, file, onProgress, signal);
}

/** Streams an archive of a whole trial to the server. @returns what came in, or rejects with a sentence for the person */
export function bringTrial(file: File, onProgress: (share: number) => void, signal: AbortSignal): Promise<BroughtIn> {
  return sent('/api/trials/archive', file, onProgress, signal);
}

/** XMLHttpRequest rather than fetch, since only it tells how much of a body has gone. */
function sent<Result>(url: string, file: File, onProgress: (share: number) => void, signal: AbortSignal): Promise<Result> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', url);
    request.responseType = 'json';
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.setRequestHeader(PAGE_HEADER, PAGE_ID);
    request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
    request.onload = () => {
      if (request.status < 300) resolve(request.response as Result);
      else reject(new Error((request.response as { error?: { message?: string } } | null)?.error?.message ?? `The server refused it (${request.status})`));
    };
    request.onerror = () => reject(new Error('The server cannot be reached. Drop the file again when it is back.'));
    request.onabort = () => reject(new Error('Stopped'));
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
}
