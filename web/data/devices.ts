import type { TakeReadings } from '@marvet/core/contract/field';
import type { Device, DeviceDraft, DeviceState } from '@marvet/core/domain/device';
import { api } from './api.ts';
import type { Started } from './records.ts';

/** A simulated device of this computer. */
export interface StandInRow extends Pick<Device, 'name' | 'kind' | 'way'> {
  running: boolean;
}

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
    postLines: build.mutation<{ ack: number | null; wrong: string[] }, { trialId: string; deviceId: string; lines: object[] }>({
      query: ({ trialId, deviceId, lines }) => ({ url: `trials/${trialId}/devices/${deviceId}/lines`, method: 'POST', body: { lines } }),
    }),
    takeReadings: build.query<TakeReadings, { trialId: string; takeId: string }>({
      query: ({ trialId, takeId }) => `trials/${trialId}/readings/${takeId}`,
      providesTags: ['Takes'],
    }),
    standIns: build.query<StandInRow[], void>({ query: () => 'stand-ins', providesTags: ['Devices'] }),
    startStandIns: build.mutation<StandInRow[], void>({ query: () => ({ url: 'stand-ins', method: 'POST' }), invalidatesTags: ['Devices'] }),
    stopStandIns: build.mutation<StandInRow[], void>({ query: () => ({ url: 'stand-ins', method: 'DELETE' }), invalidatesTags: ['Devices'] }),
  }),
});

export const {
  useDevicesQuery,
  useSaveDeviceMutation,
  useLiveDevicesQuery,
  usePostLinesMutation,
  useTakeReadingsQuery,
  useStandInsQuery,
  useStartStandInsMutation,
  useStopStandInsMutation,
} = devicesApi;
