import type { ApiTrouble } from '../../../data/api.ts';
import { capturesApi } from '../../../data/captures.ts';
import { store } from '../../../data/store.ts';
import type { Answered, CaptureServer } from './pieceSender.ts';

/** A recording that the server closed without what comes now. */
const GONE = 410;
/** Pieces that do not follow what is there are sent again from what the server says. */
const ANEW = [409, 408, 425, 429];

const { beginCapture, putPiece, finishCapture } = capturesApi.endpoints;

/** The server as sound is sent to it. */
export const captureServer: CaptureServer = {
  begin: async (trialId, draft) => answered(await store.dispatch(beginCapture.initiate({ trialId, draft }, { track: false }))),
  put: async (trialId, captureId, number, bytes) =>
    answered(await store.dispatch(putPiece.initiate({ trialId, captureId, number, bytes: new Blob([bytes], { type: 'application/octet-stream' }) }, { track: false }))),
  finish: async (trialId, captureId, binned) => answered(await store.dispatch(finishCapture.initiate({ trialId, captureId, binned }, { track: false }))),
};

function answered<Said>({ data, error }: { data?: Said; error?: unknown }): Answered<Said> {
  if (data !== undefined) return { ok: data };
  const { status = 0, message = '' } = (error ?? {}) as Partial<ApiTrouble>;
  if (status === GONE) return { closed: true };
  if (status < 400 || status >= 500 || ANEW.includes(status)) return { away: true };
  return { refused: message };
}
