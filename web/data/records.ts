import type { Chain, ChainDraft } from '@marvet/core/domain/chain';
import type { Criterion, CriterionDraft, Mark, MarkDraft } from '@marvet/core/domain/criterion';
import type { Item, ItemDraft } from '@marvet/core/domain/item';
import type { Photo, PhotoDraft, PhotoOwner } from '@marvet/core/domain/photo';
import type { PreflightTick } from '@marvet/core/domain/preflight';
import type { Script, ScriptDraft } from '@marvet/core/domain/script';
import type { StartingPointId } from '@marvet/core/domain/startingPoint';
import type { Station, StationDraft } from '@marvet/core/domain/station';
import { api } from './api.ts';

/** A draft to be saved: with an id it changes that record, without one it makes a new one. */
interface Saved<Draft> {
  trialId: string;
  id: string | null;
  draft: Draft;
}

const saving =
  (path: string) =>
  ({ trialId, id, draft }: Saved<object>) => ({
    url: `trials/${trialId}/${path}${id ? `/${id}` : ''}`,
    method: id ? 'PUT' : 'POST',
    body: draft,
  });

/** A deleted thing as the bin knows it. */
export interface Binned {
  kind: string;
  id: string;
  name: string;
  binnedAtMs: number;
}

const PATHS: Record<string, string> = { criterion: 'criteria', chain: 'chains', station: 'stations', script: 'scripts', take: 'takes', file: 'files', round: 'rounds' };
const preflightApi = api.injectEndpoints({
  endpoints: (build) => ({
    preflight: build.query<PreflightTick[], string>({ query: (trialId) => `trials/${trialId}/preflight`, providesTags: ['Preflight'] }),
  }),
});
export const { usePreflightQuery } = preflightApi;

const ALL_OF_TRIAL = ['Trials', 'Criteria', 'Chains', 'Stations', 'Scripts', 'Plan', 'Takes', 'Files', 'Recordings', 'Rounds', 'Verdict', 'Bin'] as const;

export const {
  useCriteriaQuery,
  useSaveCriterionMutation,
  useMarksQuery,
  useSaveMarkMutation,
  useItemsQuery,
  useSaveItemMutation,
  useBinItemMutation,
  useRestoreItemMutation,
  useBinnedItemsQuery,
  useChainsQuery,
  useSaveChainMutation,
  useStationsQuery,
  useSaveStationMutation,
  useScriptsQuery,
  useSaveScriptMutation,
  useTickPreflightMutation,
  usePhotosQuery,
  useAddPhotoMutation,
  useBinPhotoMutation,
  useRestorePhotoMutation,
  useImportItemsMutation,
  useStartFromMutation,
  useBinQuery,
  useBinRecordMutation,
  useRestoreRecordMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    criteria: build.query<Criterion[], string>({ query: (trialId) => `trials/${trialId}/criteria`, providesTags: ['Criteria'] }),
    saveCriterion: build.mutation<Criterion, Saved<CriterionDraft>>({ query: saving('criteria'), invalidatesTags: ['Criteria', 'Trials', 'Verdict'] }),
    marks: build.query<Mark[], string>({ query: (trialId) => `trials/${trialId}/marks`, providesTags: ['Marks'] }),
    saveMark: build.mutation<Mark, { trialId: string; mark: MarkDraft }>({
      query: ({ trialId, mark }) => ({ url: `trials/${trialId}/marks`, method: 'PUT', body: mark }),
      invalidatesTags: ['Marks', 'Verdict'],
    }),
    items: build.query<Item[], void>({ query: () => 'items', providesTags: ['Items'] }),
    saveItem: build.mutation<Item, { id: string | null; draft: ItemDraft }>({
      query: ({ id, draft }) => ({ url: id ? `items/${id}` : 'items', method: id ? 'PUT' : 'POST', body: draft }),
      invalidatesTags: ['Items', 'Verdict'],
    }),
    binItem: build.mutation<void, string>({ query: (id) => ({ url: `items/${id}`, method: 'DELETE' }), invalidatesTags: ['Items'] }),
    binnedItems: build.query<Item[], void>({ query: () => 'restore/items', providesTags: ['Items'] }),
    restoreItem: build.mutation<void, string>({ query: (id) => ({ url: `restore/items/${id}`, method: 'POST' }), invalidatesTags: ['Items'] }),
    chains: build.query<Chain[], string>({ query: (trialId) => `trials/${trialId}/chains`, providesTags: ['Chains'] }),
    saveChain: build.mutation<Chain, Saved<ChainDraft>>({ query: saving('chains'), invalidatesTags: ['Chains', 'Trials', 'Plan', 'Verdict'] }),
    stations: build.query<Station[], string>({ query: (trialId) => `trials/${trialId}/stations`, providesTags: ['Stations'] }),
    saveStation: build.mutation<Station, Saved<StationDraft>>({ query: saving('stations'), invalidatesTags: ['Stations', 'Plan'] }),
    scripts: build.query<Script[], string>({ query: (trialId) => `trials/${trialId}/scripts`, providesTags: ['Scripts'] }),
    saveScript: build.mutation<Script, Saved<ScriptDraft>>({ query: saving('scripts'), invalidatesTags: ['Scripts', 'Plan'] }),
    tickPreflight: build.mutation<PreflightTick[], { trialId: string; keys: string[]; ticked: boolean; person: string }>({
      query: ({ trialId, ...body }) => ({ url: `trials/${trialId}/preflight`, method: 'PUT', body }),
      async onQueryStarted({ trialId, keys, ticked, person }, { dispatch, queryFulfilled }) {
        // Ticks show at once; a refusal takes them back.
        const shown = dispatch(
          preflightApi.util.updateQueryData('preflight', trialId, (ticks) => {
            const others = ticks.filter((tick) => !keys.includes(tick.key));
            return ticked ? [...others, ...keys.map((key) => ({ key, person, atMs: Date.now() }))] : others;
          }),
        );
        await queryFulfilled.catch(() => shown.undo());
      },
      invalidatesTags: ['Preflight'],
    }),
    photos: build.query<Photo[], PhotoOwner>({ query: (ownerKind) => `photos?ownerKind=${ownerKind}`, providesTags: ['Photos'] }),
    addPhoto: build.mutation<Photo, { draft: PhotoDraft; image: Blob }>({
      query: ({ draft, image }) => ({ url: 'photos', method: 'POST', params: draft, body: image, headers: { 'content-type': image.type } }),
      invalidatesTags: ['Photos'],
    }),
    binPhoto: build.mutation<void, string>({ query: (id) => ({ url: `photos/${id}`, method: 'DELETE' }), invalidatesTags: ['Photos'] }),
    restorePhoto: build.mutation<void, string>({ query: (id) => ({ url: `photos/${id}/restore`, method: 'POST' }), invalidatesTags: ['Photos'] }),
    importItems: build.mutation<{ added: number; replaced: number }, ItemDraft[]>({
      query: (items) => ({ url: 'items/import', method: 'POST', body: { items } }),
      invalidatesTags: ['Items', 'Verdict'],
    }),
    startFrom: build.mutation<void, { trialId: string; id: StartingPointId }>({
      query: ({ trialId, id }) => ({ url: `trials/${trialId}/starting-point`, method: 'POST', body: { id } }),
      invalidatesTags: [...ALL_OF_TRIAL],
    }),
    bin: build.query<Binned[], string>({ query: (trialId) => `trials/${trialId}/bin`, providesTags: ['Bin'] }),
    binRecord: build.mutation<void, { trialId: string; kind: string; id: string }>({
      query: ({ trialId, kind, id }) => ({ url: `trials/${trialId}/${PATHS[kind]}/${id}`, method: 'DELETE' }),
      invalidatesTags: [...ALL_OF_TRIAL],
    }),
    restoreRecord: build.mutation<void, { trialId: string; kind: string; id: string }>({
      query: ({ trialId, kind, id }) => ({ url: `trials/${trialId}/bin/restore`, method: 'POST', body: { kind, id } }),
      invalidatesTags: [...ALL_OF_TRIAL],
    }),
  }),
});
