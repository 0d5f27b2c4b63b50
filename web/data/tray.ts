import type { FactorKind } from '@marvet/core/domain/factor';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** One setup of one take, picked up somewhere. */
export interface TrayEntry {
  takeId: string;
  setupId: string;
}

const same = (a: TrayEntry, b: TrayEntry) => a.takeId === b.takeId && a.setupId === b.setupId;
const MOST = 8;

/** The tray of each trial, and the factor under test in it. */
export const tray = createSlice({
  name: 'tray',
  initialState: { byTrial: {} as Record<string, TrayEntry[]>, underTest: 'candidate' as FactorKind },
  reducers: {
    picked(state, { payload: { trialId, entry } }: PayloadAction<{ trialId: string; entry: TrayEntry }>) {
      const entries = state.byTrial[trialId] ?? [];
      const without = entries.filter((each) => !same(each, entry));
      state.byTrial[trialId] = without.length < entries.length ? without : [...entries, entry].slice(-MOST);
    },
    replaced(state, { payload: { trialId, entries } }: PayloadAction<{ trialId: string; entries: TrayEntry[] }>) {
      state.byTrial[trialId] = entries.slice(0, MOST);
    },
    underTestChosen(state, { payload }: PayloadAction<FactorKind>) {
      state.underTest = payload;
    },
  },
});
export const { picked, replaced, underTestChosen } = tray.actions;

/** Whether a setup of a take lies in the tray. */
export const inTray = (entries: readonly TrayEntry[], entry: TrayEntry) => entries.some((each) => same(each, entry));
