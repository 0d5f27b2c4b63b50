import { api } from './api.ts';

/** Bytes that nothing refers to. */
interface Loose {
  count: number;
  bytes: number;
}

export const { useHealthQuery, useStorageQuery, useCollectMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    health: build.query<{ status: string; version: string; troubles: string[] }, void>({ query: () => 'health' }),
    storage: build.query<Loose, void>({ query: () => 'storage', providesTags: ['Storage'] }),
    collect: build.mutation<Loose, void>({ query: () => ({ url: 'storage/collect', method: 'POST' }), invalidatesTags: ['Storage'] }),
  }),
});
