import type { PostedAnswer, StandIn, TakeReadings } from '@marvet/core/contract/field';
import type { Device, DeviceDraft, DeviceState } from '@marvet/core/domain/device';
import type { VoiceNote } from '@marvet/core/domain/voiceNote';
import { api } from './api.ts';
import type { Started } from './records.ts';

export const devicesApi = api.injectEndpoints({
  endpoints: (build) => ({
    devices: build.query<Device[], string>({ query: (trialId) => `trials/${trialId}/devices`, providesTags: ['Devices'] }),
    saveDevice: build.mutation<Device, { trialId: string; from: Started | null; draft: DeviceDraft }>({
      query: ({ trialId, from, draft }) => ({
        url: `trials/${trialId}/devices${from ? `/${from.id}` : ''}`,
        method: from ? 'PUT' : 'POST',
        body: from ? { ...draft, version: from.version } : draft,
      }),
      invalidatesTags: ['Devices'],
    }),
    /** How devices are; kept up to date by live events. */
    liveDevices: build.query<DeviceState[], string>({ query: (trialId) => `trials/${trialId}/devices/live`, providesTags: ['Devices'] }),
    postLines: build.mutation<PostedAnswer, { trialId: string; deviceId: string; lines: object[] }>({
      query: ({ trialId, deviceId, lines }) => ({ url: `trials/${trialId}/devices/${deviceId}/lines`, method: 'POST', body: { lines } }),
    }),
    takeReadings: build.query<TakeReadings, { trialId: string; takeId: string }>({
      query: ({ trialId, takeId }) => `trials/${trialId}/readings/${takeId}`,
      providesTags: ['Takes'],
    }),
    voiceNotes: build.query<VoiceNote[], string>({ query: (trialId) => `trials/${trialId}/voice-notes`, providesTags: ['VoiceNotes'] }),
    addVoiceNote: build.mutation<{ id: string }, { id: string; trialId: string; takeId: string; lengthS: number; sound: Blob }>({
      query: ({ id, trialId, takeId, lengthS, sound }) => ({
        url: `trials/${trialId}/voice-notes`,
        method: 'POST',
        params: { id, takeId, lengthS: lengthS.toFixed(1) },
        body: sound,
        headers: { 'content-type': sound.type },
      }),
      invalidatesTags: ['VoiceNotes'],
    }),
    binVoiceNote: build.mutation<void, { trialId: string; id: string }>({
      query: ({ trialId, id }) => ({ url: `trials/${trialId}/voice-notes/${id}`, method: 'DELETE' }),
      invalidatesTags: ['VoiceNotes'],
    }),
    restoreVoiceNote: build.mutation<void, { trialId: string; id: string }>({
      query: ({ trialId, id }) => ({ url: `trials/${trialId}/voice-notes/${id}/restore`, method: 'POST' }),
      invalidatesTags: ['VoiceNotes'],
    }),
    standIns: build.query<StandIn[], void>({ query: () => 'stand-ins', providesTags: ['Devices'] }),
    startStandIns: build.mutation<StandIn[], void>({ query: () => ({ url: 'stand-ins', method: 'POST' }), invalidatesTags: ['Devices'] }),
    stopStandIns: build.mutation<StandIn[], void>({ query: () => ({ url: 'stand-ins', method: 'DELETE' }), invalidatesTags: ['Devices'] }),
  }),
});

export const {
  useDevicesQuery,
  useSaveDeviceMutation,
  useLiveDevicesQuery,
  usePostLinesMutation,
  useTakeReadingsQuery,
  useVoiceNotesQuery,
  useAddVoiceNoteMutation,
  useBinVoiceNoteMutation,
  useRestoreVoiceNoteMutation,
  useStandInsQuery,
  useStartStandInsMutation,
  useStopStandInsMutation,
} = devicesApi;
