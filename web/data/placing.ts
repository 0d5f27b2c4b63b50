import type { ForeseenAndFound } from '@marvet/core/contract/placing';
import type { LearnedSpot } from '@marvet/core/place/learned';
import { api } from './api.ts';

export const { useLearnedQuery, useForeseenQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    /** What all takes of all trials say of spots on a body. */
    learned: build.query<LearnedSpot[], void>({ query: () => 'learned', providesTags: ['Recordings', 'Takes', 'Placements'] }),
    foreseen: build.query<ForeseenAndFound, string>({ query: (trialId) => `trials/${trialId}/foreseen`, providesTags: ['Recordings', 'Takes', 'Plan', 'Stations', 'Placements'] }),
  }),
});
