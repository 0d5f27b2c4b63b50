import type { CaptureState } from '@marvet/core/contract/captures';
import type { CaptureDraft } from '@marvet/core/domain/capture';
import { api } from './api.ts';

export const capturesApi = api.injectEndpoints({
  endpoints: (build) => ({
    openCaptures: build.query<CaptureState[], string>({ query: (trialId) => `trials/${trialId}/captures`, providesTags: ['Captures'] }),
    beginCapture: build.mutation<CaptureState, { trialId: string; draft: CaptureDraft }>({
      query: ({ trialId, draft }) => ({ url: `trials/${trialId}/captures`, method: 'POST', body: draft }),
    }),
    putPiece: build.mutation<{ pieces: number }, { trialId: string; captureId: string; number: number; bytes: Blob }>({
      query: ({ trialId, captureId, number, bytes }) => ({ url: `trials/${trialId}/captures/${captureId}/pieces/${number}`, method: 'PUT', body: bytes }),
    }),
    finishCapture: build.mutation<CaptureState, { trialId: string; captureId: string; binned: boolean }>({
      query: ({ trialId, captureId, binned }) => ({ url: `trials/${trialId}/captures/${captureId}/finish`, method: 'POST', body: { binned } }),
      invalidatesTags: ['Captures', 'Files', 'Recordings', 'Trials', 'Verdict', 'Bin'],
    }),
  }),
});

export const { useOpenCapturesQuery, useFinishCaptureMutation } = capturesApi;
