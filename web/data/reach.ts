import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** Whether the server answers: since when what is shown was kept on this device, and why the server will not have this device. */
export const reach = createSlice({
  name: 'reach',
  initialState: { keptSince: null as string | null, notIn: null as string | null },
  reducers: {
    answered(state, { payload }: PayloadAction<{ keptSince: string | null }>) {
      state.keptSince = payload.keptSince;
      if (payload.keptSince === null) state.notIn = null;
    },
    turnedAway(state, { payload }: PayloadAction<string>) {
      state.notIn = payload;
    },
  },
});
export const { answered, turnedAway } = reach.actions;
