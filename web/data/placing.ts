import type { RangeAnswer } from '@marvet/core/contract/field';
import type { ForeseenAndFound } from '@marvet/core/contract/placing';
import type { LearnedSpot } from '@marvet/core/place/learned';
import { api } from './api.ts';

export const { useLearnedQuery, useForeseenQuery, useRangeQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    /** What all takes of all trials say of spots on a body. */
    learned: build.query<LearnedSpot[], void>({ query: () => 'learned', providesTags: ['Recordings', 'Takes', 'Placements'] }),
    /** How far the links of a trial held. */
    range: build.query<RangeAnswer, string>({ query: (trialId) => `trials/${trialId}/range`, providesTags: ['Recordings', 'Takes', 'Plan', 'Chains'] }),
    foreseen: build.query<ForeseenAndFound, string>({ query: (trialId) => `trials/${trialId}/foreseen`, providesTags: ['Recordings', 'Takes', 'Plan', 'Stations', 'Placements'] }),
  }),
});
