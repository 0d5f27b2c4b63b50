import { BIN_KINDS, type BinKind, type Binned, type ImportedItems } from '@marvet/core/contract/answers';
import { TAGS_OF_TRIAL } from '@marvet/core/contract/events';
import type { FoundBefore } from '@marvet/core/decide/foundBefore';
import type { ChainDraft, StoredChain } from '@marvet/core/domain/chain';
import type { CriterionDraft, Mark, MarkDraft, StoredCriterion } from '@marvet/core/domain/criterion';
import type { FrameDraft, StoredFrame } from '@marvet/core/domain/frame';
import type { ItemDraft, StoredItem } from '@marvet/core/domain/item';
import type { Photo, PhotoDraft, PhotoOwner } from '@marvet/core/domain/photo';
import type { Placement, PlacementDraft } from '@marvet/core/domain/placement';
import type { PreflightTick } from '@marvet/core/domain/preflight';
import type { RigRecord, RigRecordDraft } from '@marvet/core/domain/rigRecord';
import type { ScriptDraft, StoredScript } from '@marvet/core/domain/script';
import type { Sight, SightDraft } from '@marvet/core/domain/sight';
import type { StartingPointId } from '@marvet/core/domain/startingPoint';
import type { StationDraft, StoredStation } from '@marvet/core/domain/station';
import type { StoredWearer, WearerDraft } from '@marvet/core/domain/wearer';
import { api } from './api.ts';

/** A record as it was when a change of it began. */
export interface Started {
  id: string;
  version: number;
}

/** A draft to be saved: as a change of the record that it started from, or as a new one. */
export interface Saved<Draft> {
  trialId: string;
  from: Started | null;
  draft: Draft;
}

const saving =
  (path: string) =>
  ({ trialId, from, draft }: Saved<object>) => ({
    url: `trials/${trialId}/${path}${from ? `/${from.id}` : ''}`,
    method: from ? 'PUT' : 'POST',
    body: from ? { ...draft, version: from.version } : draft,
  });

const preflightApi = api.injectEndpoints({
  endpoints: (build) => ({
    preflight: build.query<PreflightTick[], string>({ query: (trialId) => `trials/${trialId}/preflight`, providesTags: ['Preflight'] }),
  }),
});
export const { usePreflightQuery } = preflightApi;

export const {
  useCriteriaQuery,
  useSaveCriterionMutation,
  useMarksQuery,
  useSaveMarkMutation,
  useItemsQuery,
  useFoundBeforeQuery,
  useSaveItemMutation,
  useBinItemMutation,
  useRestoreItemMutation,
  useBinnedItemsQuery,
  useChainsQuery,
  useSaveChainMutation,
  useStationsQuery,
  useSaveStationMutation,
  usePlacementsQuery,
  useSavePlacementMutation,
  useRigsQuery,
  useSaveRigMutation,
  useFramesQuery,
  useSaveFrameMutation,
  useWearersQuery,
  useSaveWearerMutation,
  useSightsQuery,
  useSaveSightMutation,
  useScriptsQuery,
  useSaveScriptMutation,
  useTickPreflightMutation,
  usePhotosQuery,
  useAddPhotoMutation,
  useBinPhotoMutation,
  useRestorePhotoMutation,
  useImportItemsMutation,
  useUndoImportMutation,
  useStartFromMutation,
  useBinQuery,
  useBinRecordMutation,
  useRestoreRecordMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    criteria: build.query<StoredCriterion[], string>({ query: (trialId) => `trials/${trialId}/criteria`, providesTags: ['Criteria'] }),
    saveCriterion: build.mutation<StoredCriterion, Saved<CriterionDraft>>({ query: saving('criteria'), invalidatesTags: ['Criteria', 'Trials', 'Verdict'] }),
    marks: build.query<Mark[], string>({ query: (trialId) => `trials/${trialId}/marks`, providesTags: ['Marks'] }),
    saveMark: build.mutation<Mark, { trialId: string; mark: MarkDraft }>({
      query: ({ trialId, mark }) => ({ url: `trials/${trialId}/marks`, method: 'PUT', body: mark }),
      invalidatesTags: ['Marks', 'Verdict'],
    }),
    /** What trials with an open verdict found of their candidates. */
    foundBefore: build.query<FoundBefore[], void>({ query: () => 'found', providesTags: ['Verdict'] }),
    items: build.query<StoredItem[], void>({ query: () => 'items', providesTags: ['Items'] }),
    saveItem: build.mutation<StoredItem, { from: Started | null; draft: ItemDraft }>({
      query: ({ from, draft }) => ({ url: from ? `items/${from.id}` : 'items', method: from ? 'PUT' : 'POST', body: from ? { ...draft, version: from.version } : draft }),
      invalidatesTags: ['Items', 'Verdict'],
    }),
    binItem: build.mutation<void, string>({ query: (id) => ({ url: `items/${id}`, method: 'DELETE' }), invalidatesTags: ['Items'] }),
    binnedItems: build.query<StoredItem[], void>({ query: () => 'restore/items', providesTags: ['Items'] }),
    restoreItem: build.mutation<void, string>({ query: (id) => ({ url: `restore/items/${id}`, method: 'POST' }), invalidatesTags: ['Items'] }),
    chains: build.query<StoredChain[], string>({ query: (trialId) => `trials/${trialId}/chains`, providesTags: ['Chains'] }),
    saveChain: build.mutation<StoredChain, Saved<ChainDraft>>({ query: saving('chains'), invalidatesTags: ['Chains', 'Trials', 'Plan', 'Verdict'] }),
    stations: build.query<StoredStation[], string>({ query: (trialId) => `trials/${trialId}/stations`, providesTags: ['Stations'] }),
    saveStation: build.mutation<StoredStation, Saved<StationDraft>>({ query: saving('stations'), invalidatesTags: ['Stations', 'Plan'] }),
    placements: build.query<Placement[], string>({ query: (trialId) => `trials/${trialId}/placements`, providesTags: ['Placements'] }),
    savePlacement: build.mutation<Placement, Saved<PlacementDraft>>({ query: saving('placements'), invalidatesTags: ['Placements', 'Plan'] }),
    rigs: build.query<RigRecord[], string>({ query: (trialId) => `trials/${trialId}/rigs`, providesTags: ['Rigs'] }),
    saveRig: build.mutation<RigRecord, Saved<RigRecordDraft>>({ query: saving('rigs'), invalidatesTags: ['Rigs', 'Plan'] }),
    frames: build.query<StoredFrame[], string>({ query: (trialId) => `trials/${trialId}/frames`, providesTags: ['Frames'] }),
    saveFrame: build.mutation<StoredFrame, Saved<FrameDraft>>({ query: saving('frames'), invalidatesTags: ['Frames'] }),
    wearers: build.query<StoredWearer[], string>({ query: (trialId) => `trials/${trialId}/wearers`, providesTags: ['Wearers'] }),
    saveWearer: build.mutation<StoredWearer, Saved<WearerDraft>>({ query: saving('wearers'), invalidatesTags: ['Wearers'] }),
    sights: build.query<Sight[], string>({ query: (trialId) => `trials/${trialId}/sights`, providesTags: ['Sights'] }),
    saveSight: build.mutation<Sight, Saved<SightDraft>>({ query: saving('sights'), invalidatesTags: ['Sights'] }),
    scripts: build.query<StoredScript[], string>({ query: (trialId) => `trials/${trialId}/scripts`, providesTags: ['Scripts'] }),
    saveScript: build.mutation<StoredScript, Saved<ScriptDraft>>({ query: saving('scripts'), invalidatesTags: ['Scripts', 'Plan'] }),
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
    importItems: build.mutation<ImportedItems, ItemDraft[]>({
      query: (items) => ({ url: 'items/import', method: 'POST', body: { items } }),
      invalidatesTags: ['Items', 'Verdict'],
    }),
    undoImport: build.mutation<void, Omit<ImportedItems, 'added'>>({
      query: (body) => ({ url: 'items/import/undo', method: 'POST', body }),
      invalidatesTags: ['Items', 'Verdict'],
    }),
    startFrom: build.mutation<void, { trialId: string; id: StartingPointId }>({
      query: ({ trialId, id }) => ({ url: `trials/${trialId}/starting-point`, method: 'POST', body: { id } }),
      invalidatesTags: TAGS_OF_TRIAL,
    }),
    bin: build.query<Binned[], string>({ query: (trialId) => `trials/${trialId}/bin`, providesTags: ['Bin'] }),
    binRecord: build.mutation<void, { trialId: string; kind: BinKind; id: string }>({
      query: ({ trialId, kind, id }) => ({ url: `trials/${trialId}/${BIN_KINDS[kind]}/${id}`, method: 'DELETE' }),
      invalidatesTags: TAGS_OF_TRIAL,
    }),
    restoreRecord: build.mutation<void, { trialId: string; kind: BinKind; id: string }>({
      query: ({ trialId, kind, id }) => ({ url: `trials/${trialId}/bin/restore`, method: 'POST', body: { kind, id } }),
      invalidatesTags: TAGS_OF_TRIAL,
    }),
  }),
});
