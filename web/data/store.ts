import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import { keep, kept } from './keep.ts';
import { look } from './look.ts';
import { reach } from './reach.ts';
import { recordingNow } from './recordingNow.ts';
import { tray } from './tray.ts';

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, look: look.reducer, tray: tray.reducer, reach: reach.reducer, recordingNow: recordingNow.reducer },
  middleware: (defaults) => defaults().concat(api.middleware),
  preloadedState: { look: kept('look', look.getInitialState()), tray: kept('tray', tray.getInitialState()) },
});
setupListeners(store.dispatch);

let last = store.getState();
store.subscribe(() => {
  const now = store.getState();
  if (now.look !== last.look) keep('look', now.look);
  if (now.tray !== last.tray) keep('tray', now.tray);
  last = now;
});

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
