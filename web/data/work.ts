import type { CommitResult, LogAnswer, WrittenLine } from '@marvet/core/contract/answers';
import type { StereoSet } from '@marvet/core/contract/channelUse';
import type { FigureOfAll, FileChange, FileRow, RecordingDetail, RecordingRow } from '@marvet/core/contract/recordings';
import type { SaidOfTakes, SayCondition } from '@marvet/core/contract/sayCondition';
import type { CorrectionChange } from '@marvet/core/domain/correction';
import type { Job } from '@marvet/core/domain/job';
import type { LogLine } from '@marvet/core/domain/logLine';
import type { MeasureId } from '@marvet/core/domain/measureId';
import type { Plan, PlanDraft } from '@marvet/core/domain/plan';
import type { Assignment, PerformanceMark, RoomToneMark } from '@marvet/core/domain/recording';
import type { Take } from '@marvet/core/domain/take';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import { api } from './api.ts';

/**
 * Of lists of thousands of rows. The state would walk through every field of them, to see whether somebody
 * changed it and to compare it with what was there; what is frozen it takes as it is.
 */
const LONG_LIST = { structuralSharing: false, transformResponse: <Row>(rows: Row[]): Row[] => Object.freeze(rows) as Row[] };

const planApi = api.injectEndpoints({
  endpoints: (build) => ({
    plan: build.query<Plan, string>({ query: (trialId) => `trials/${trialId}/plan`, providesTags: ['Plan'] }),
  }),
});

export const { usePlanQuery } = planApi;

export const workApi = planApi.injectEndpoints({
  endpoints: (build) => ({
    savePlan: build.mutation<Plan, { trialId: string; version: number; draft: PlanDraft }>({
      query: ({ trialId, version, draft }) => ({ url: `trials/${trialId}/plan`, method: 'PUT', body: { ...draft, version } }),
      async onQueryStarted({ trialId }, { dispatch, queryFulfilled }) {
        const { data } = await queryFulfilled.catch(() => ({ data: null }));
        if (data) dispatch(planApi.util.updateQueryData('plan', trialId, () => data));
      },
    }),
    commitPlan: build.mutation<CommitResult, string>({
      query: (trialId) => ({ url: `trials/${trialId}/plan/commit`, method: 'POST' }),
      invalidatesTags: ['Plan', 'Takes', 'Trials'],
    }),
    takes: build.query<Take[], string>({ query: (trialId) => `trials/${trialId}/takes`, ...LONG_LIST, providesTags: ['Takes'] }),
    sendLog: build.mutation<LogAnswer, { trialId: string; lines: LogLine[]; sentAtMs: number; addedMs: number; knownMs: number }>({
      query: ({ trialId, ...body }) => ({ url: `trials/${trialId}/log`, method: 'POST', body }),
      invalidatesTags: ['Takes', 'Trials', 'Verdict'],
    }),
    writtenLines: build.query<WrittenLine[], string>({ query: (trialId) => `trials/${trialId}/log/written`, providesTags: ['Takes'] }),
    files: build.query<FileRow[], string>({ query: (trialId) => `trials/${trialId}/files`, ...LONG_LIST, providesTags: ['Files'] }),
    recordings: build.query<RecordingRow[], string>({ query: (trialId) => `trials/${trialId}/recordings`, ...LONG_LIST, providesTags: ['Recordings'] }),
    file: build.query<FileChange, { trialId: string; fileId: string }>({ query: ({ trialId, fileId }) => `trials/${trialId}/files/${fileId}` }),
    figure: build.query<FigureOfAll, { trialId: string; measureId: MeasureId }>({
      query: ({ trialId, measureId }) => `trials/${trialId}/recordings/figure/${measureId}`,
      providesTags: ['Recordings'],
    }),
    recording: build.query<RecordingDetail, { trialId: string; id: string }>({
      query: ({ trialId, id }) => `trials/${trialId}/recordings/${id}`,
      providesTags: (_data, _error, { id }) => ['Recordings', { type: 'Recordings' as const, id }],
    }),
    assignFile: build.mutation<void, { trialId: string; fileId: string; assignment: Assignment }>({
      query: ({ trialId, fileId, assignment }) => ({ url: `trials/${trialId}/files/${fileId}/assignment`, method: 'PUT', body: assignment }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict'],
    }),
    /** Says of takes what nobody had written down. */
    sayCondition: build.mutation<SaidOfTakes, { trialId: string } & SayCondition>({
      query: ({ trialId, ...body }) => ({ url: `trials/${trialId}/conditions`, method: 'POST', body }),
      invalidatesTags: ['Takes', 'Recordings', 'Trials', 'Verdict'],
    }),
    /** Says which channels of a file are stereo. */
    setStereo: build.mutation<{ files: number }, { trialId: string; fileId: string } & StereoSet>({
      query: ({ trialId, fileId, ...body }) => ({ url: `trials/${trialId}/files/${fileId}/stereo`, method: 'PUT', body }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict'],
    }),
    /** Gives two recordings of a file each other's candidate. */
    swapRecordings: build.mutation<void, { trialId: string; recordingIds: [string, string] }>({
      query: ({ trialId, recordingIds }) => ({ url: `trials/${trialId}/files/swap`, method: 'POST', body: { recordingIds } }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict'],
    }),
    /** What is waited for or under way right now. */
    jobs: build.query<Job[], string>({ query: (trialId) => `trials/${trialId}/jobs` }),
    cancelJob: build.mutation<void, { trialId: string; id: string }>({ query: ({ trialId, id }) => ({ url: `trials/${trialId}/jobs/${id}/cancel`, method: 'POST' }) }),
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
    markPerformance: build.mutation<void, { trialId: string; id: string } & PerformanceMark>({
      query: ({ trialId, id, performance }) => ({ url: `trials/${trialId}/recordings/${id}/performance`, method: 'PUT', body: { performance } }),
      invalidatesTags: ['Recordings', 'Verdict'],
    }),
    /** Sets by hand from where on in its file a recording is, where something was switched. */
    moveCut: build.mutation<void, { trialId: string; id: string; startS: number }>({
      query: ({ trialId, id, startS }) => ({ url: `trials/${trialId}/recordings/${id}/cut`, method: 'PUT', body: { startS } }),
      invalidatesTags: ['Files', 'Recordings', 'Verdict'],
    }),
    correctEvent: build.mutation<void, { trialId: string; recordingId: string; id: string } & CorrectionChange>({
      query: ({ trialId, recordingId, id, ...change }) => ({ url: `trials/${trialId}/recordings/${recordingId}/corrections/${id}`, method: 'PUT', body: change }),
      invalidatesTags: ['Recordings'],
    }),
    takeCorrectionBack: build.mutation<void, { trialId: string; recordingId: string; id: string }>({
      query: ({ trialId, recordingId, id }) => ({ url: `trials/${trialId}/recordings/${recordingId}/corrections/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Recordings'],
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
export const {
  useSavePlanMutation,
  useCommitPlanMutation,
  useTakesQuery,
  useSendLogMutation,
  useWrittenLinesQuery,
  useFilesQuery,
  useRecordingsQuery,
  useRecordingQuery,
  useAssignFileMutation,
  useSayConditionMutation,
  useSetStereoMutation,
  useSwapRecordingsMutation,
  useCancelJobMutation,
  useCancelMeasuringMutation,
  useJobsQuery,
  useMeasureAgainMutation,
  useMeasureManyMutation,
  useMarkRoomToneMutation,
  useMarkPerformanceMutation,
  useMoveCutMutation,
  useCorrectEventMutation,
  useTakeCorrectionBackMutation,
  useFigureQuery,
  usePairQuery,
} = workApi;
