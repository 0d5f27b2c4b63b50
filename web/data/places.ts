import type { Joined, Places, Placings, RecorderPatch } from '@marvet/core/contract/places';
import type { LevelSeries } from '@marvet/core/measure/report.types';
import { api } from './api.ts';

const placesApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** Where each file lies and belongs; a file that comes in or is measured changes it. */
    places: build.query<Places, string>({ query: (trialId) => `trials/${trialId}/places`, providesTags: ['Files', 'Takes', 'Sounds'] }),
    /** Puts files into takes, and answers with where they lay before. */
    putInPlace: build.mutation<Placings, { trialId: string } & Placings>({
      query: ({ trialId, places }) => ({ url: `trials/${trialId}/places`, method: 'POST', body: { places } }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict', 'Trials'],
    }),
    /** How loud a whole file is over time; its bytes never change. */
    fileLevels: build.query<LevelSeries, { trialId: string; fileId: string }>({ query: ({ trialId, fileId }) => `trials/${trialId}/files/${fileId}/levels` }),
    /** Says something of a recorder, and answers with how its files were tied before. */
    changeRecorder: build.mutation<Placings, { trialId: string; patch: RecorderPatch }>({
      query: ({ trialId, patch }) => ({ url: `trials/${trialId}/places/recorders`, method: 'PATCH', body: patch }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict', 'Trials'],
    }),
    /** Joins files that a recorder split, in their order. */
    joinFiles: build.mutation<Joined, { trialId: string; fileIds: string[] }>({
      query: ({ trialId, ...body }) => ({ url: `trials/${trialId}/files/join`, method: 'POST', body }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict', 'Trials'],
    }),
    unjoinFiles: build.mutation<void, { trialId: string; fileId: string; fileIds: string[] }>({
      query: ({ trialId, ...body }) => ({ url: `trials/${trialId}/files/join/undo`, method: 'POST', body }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict', 'Trials'],
    }),
    /** Says which recorder wrote a file. */
    setRecorder: build.mutation<void, { trialId: string; fileIds: string[]; recorder: string }>({
      query: ({ trialId, ...body }) => ({ url: `trials/${trialId}/places/recorder`, method: 'PUT', body }),
      invalidatesTags: ['Files'],
    }),
  }),
});

export const { useFileLevelsQuery, usePlacesQuery, usePutInPlaceMutation, useChangeRecorderMutation, useSetRecorderMutation, useJoinFilesMutation, useUnjoinFilesMutation } =
  placesApi;
