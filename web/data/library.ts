import type { Placement, PlacementDraft } from '@marvet/core/domain/placement';
import type { RigRecord, RigRecordDraft } from '@marvet/core/domain/rigRecord';
import { api } from './api.ts';

/** Kinds of records that the library keeps for all trials, beside items. */
export type LibraryKind = 'placements' | 'rigs';

const TAG = { placements: 'Placements', rigs: 'Rigs' } as const;
const stale = (_answer: unknown, _error: unknown, { kind }: { kind: LibraryKind }) => [TAG[kind]];

export const { useLibraryPlacementsQuery, useLibraryRigsQuery, useKeepInLibraryMutation, useRemoveFromLibraryMutation, useBringBackToLibraryMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    libraryPlacements: build.query<Placement[], void>({ query: () => 'library/placements', providesTags: ['Placements'] }),
    libraryRigs: build.query<RigRecord[], void>({ query: () => 'library/rigs', providesTags: ['Rigs'] }),
    keepInLibrary: build.mutation<Placement | RigRecord, { kind: LibraryKind; draft: PlacementDraft | RigRecordDraft }>({
      query: ({ kind, draft }) => ({ url: `library/${kind}`, method: 'POST', body: draft }),
      invalidatesTags: stale,
    }),
    removeFromLibrary: build.mutation<void, { kind: LibraryKind; id: string }>({
      query: ({ kind, id }) => ({ url: `library/${kind}/${id}`, method: 'DELETE' }),
      invalidatesTags: stale,
    }),
    bringBackToLibrary: build.mutation<void, { kind: LibraryKind; id: string }>({
      query: ({ kind, id }) => ({ url: `library/${kind}/${id}/restore`, method: 'POST' }),
      invalidatesTags: stale,
    }),
  }),
});
