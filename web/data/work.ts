import type { LogLine } from '@marvet/core/domain/logLine';
import type { Plan, PlanDraft } from '@marvet/core/domain/plan';
import type { Assignment, AudioFile, MeasureState, RecordingDetail, RoomToneMark } from '@marvet/core/domain/recording';
import type { Take } from '@marvet/core/domain/take';
import type { MeasureId } from '@marvet/core/measure/catalogue';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import { api } from './api.ts';

/** One recording in a table: its place, its file and its figures. */
export interface RecordingRow {
  id: string;
  fileId: string;
  fileName: string;
  channelIndex: number;
  trackName: string | null;
  takeId: string | null;
  candidateId: string | null;
  state: MeasureState;
  methodVersion: number | null;
  figures: Partial<Record<MeasureId, number>> | null;
}

export interface CommitResult {
  takes: number;
  added: number;
  kept: number;
  dropped: number;
}

const workApi = api.injectEndpoints({
  endpoints: (build) => ({
    plan: build.query<Plan, string>({ query: (trialId) => `trials/${trialId}/plan`, providesTags: ['Plan'] }),
  }),
});

export const { usePlanQuery } = workApi;
export const {
  useSavePlanMutation,
  useCommitPlanMutation,
  useTakesQuery,
  useSendLogMutation,
  useFilesQuery,
  useRecordingsQuery,
  useRecordingQuery,
  useAssignFileMutation,
  useCancelMeasuringMutation,
  useMeasureAgainMutation,
  useMeasureManyMutation,
  useMarkRoomToneMutation,
  usePairQuery,
} = workApi.injectEndpoints({
  endpoints: (build) => ({
    savePlan: build.mutation<Plan, { trialId: string; draft: PlanDraft }>({
      query: ({ trialId, draft }) => ({ url: `trials/${trialId}/plan`, method: 'PUT', body: draft }),
      async onQueryStarted({ trialId }, { dispatch, queryFulfilled }) {
        const { data } = await queryFulfilled.catch(() => ({ data: null }));
        if (data) dispatch(workApi.util.updateQueryData('plan', trialId, () => data));
      },
    }),
    commitPlan: build.mutation<CommitResult, string>({
      query: (trialId) => ({ url: `trials/${trialId}/plan/commit`, method: 'POST' }),
      invalidatesTags: ['Plan', 'Takes', 'Trials'],
    }),
    takes: build.query<Take[], string>({ query: (trialId) => `trials/${trialId}/takes`, providesTags: ['Takes'] }),
    sendLog: build.mutation<{ accepted: string[]; unknown: string[] }, { trialId: string; lines: LogLine[] }>({
      query: ({ trialId, lines }) => ({ url: `trials/${trialId}/log`, method: 'POST', body: { lines } }),
      invalidatesTags: ['Takes', 'Trials', 'Verdict'],
    }),
    files: build.query<AudioFile[], string>({ query: (trialId) => `trials/${trialId}/files`, providesTags: ['Files'] }),
    recordings: build.query<RecordingRow[], string>({ query: (trialId) => `trials/${trialId}/recordings`, providesTags: ['Recordings'] }),
    recording: build.query<RecordingDetail, { trialId: string; id: string }>({ query: ({ trialId, id }) => `trials/${trialId}/recordings/${id}`, providesTags: ['Recordings'] }),
    assignFile: build.mutation<AudioFile, { trialId: string; fileId: string; assignment: Assignment }>({
      query: ({ trialId, fileId, assignment }) => ({ url: `trials/${trialId}/files/${fileId}/assignment`, method: 'PUT', body: assignment }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict'],
    }),
    cancelMeasuring: build.mutation<void, { trialId: string; fileId: string }>({
      query: ({ trialId, fileId }) => ({ url: `trials/${trialId}/files/${fileId}/cancel`, method: 'POST' }),
      invalidatesTags: ['Files'],
    }),
    measureMany: build.mutation<{ files: number }, { trialId: string; which: 'all' | 'old' }>({
      query: ({ trialId, which }) => ({ url: `trials/${trialId}/files/measure`, method: 'POST', body: { which } }),
      invalidatesTags: ['Files', 'Recordings'],
    }),
    markRoomTone: build.mutation<void, { trialId: string; id: string } & RoomToneMark>({
      query: ({ trialId, id, roomTone }) => ({ url: `trials/${trialId}/recordings/${id}/room-tone`, method: 'PUT', body: { roomTone } }),
      invalidatesTags: ['Files', 'Recordings'],
    }),
    pair: build.query<ComparedPair, { trialId: string; id: string; other: string }>({
      query: ({ trialId, id, other }) => `trials/${trialId}/recordings/${id}/pair/${other}`,
    }),
    measureAgain: build.mutation<void, { trialId: string; fileId: string }>({
      query: ({ trialId, fileId }) => ({ url: `trials/${trialId}/files/${fileId}/measure`, method: 'POST' }),
      invalidatesTags: ['Files'],
    }),
  }),
});
