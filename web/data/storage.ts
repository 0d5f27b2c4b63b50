import type { Health, LooseBytes } from '@marvet/core/contract/answers';
import { api } from './api.ts';

export const { useHealthQuery, useStorageQuery, useCollectMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    health: build.query<Health, void>({ query: () => 'health' }),
    storage: build.query<LooseBytes, void>({ query: () => 'storage', providesTags: ['Storage'] }),
    collect: build.mutation<LooseBytes, void>({ query: () => ({ url: 'storage/collect', method: 'POST' }), invalidatesTags: ['Storage'] }),
  }),
});
