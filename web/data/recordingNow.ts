import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** What this page records right now, for views that know nothing of the recorder. */
export const recordingNow = createSlice({
  name: 'recordingNow',
  initialState: { trialId: null as string | null, takeId: null as string | null },
  reducers: {
    recordingBegan(state, { payload }: PayloadAction<{ trialId: string; takeId: string }>) {
      Object.assign(state, payload);
    },
    recordingEnded(state) {
      Object.assign(state, { trialId: null, takeId: null });
    },
  },
});
export const { recordingBegan, recordingEnded } = recordingNow.actions;
