import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type Theme = 'daylight' | 'dusk';

/** What a person chose to see: the theme, and cautions that were put away. */
export const look = createSlice({
  name: 'look',
  initialState: { theme: 'daylight' as Theme, dismissedCautions: [] as string[] },
  reducers: {
    themeChosen(state, { payload }: PayloadAction<Theme>) {
      state.theme = payload;
    },
    cautionDismissed(state, { payload }: PayloadAction<string>) {
      if (!state.dismissedCautions.includes(payload)) state.dismissedCautions.push(payload);
    },
    cautionsShownAgain(state) {
      state.dismissedCautions = [];
    },
  },
});
export const { themeChosen, cautionDismissed, cautionsShownAgain } = look.actions;
