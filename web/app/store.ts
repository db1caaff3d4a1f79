import { combineReducers, configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query/react';
import { useDispatch, useSelector } from 'react-redux';
import { draftsReducer } from '../measuring/drafts.ts';
import { gaugeReducer } from '../instruments/gauge.ts';
import { outboxReducer } from './outbox.ts';
import { lockingReducer } from '../measuring/locking.ts';
import { triesReducer } from '../measuring/tries.ts';
import { api } from './api.ts';
import { keeping, readKept } from './keeping.ts';
import { preferencesReducer } from './preferences.ts';

const reducer = combineReducers({
  [api.reducerPath]: api.reducer,
  preferences: preferencesReducer,
  drafts: draftsReducer,
  outbox: outboxReducer,
  tries: triesReducer,
  locking: lockingReducer,
  gauge: gaugeReducer,
});

export const store = configureStore({
  reducer,
  preloadedState: readKept() as Partial<ReturnType<typeof reducer>>,
  middleware: (defaults) => defaults().prepend(keeping.middleware).concat(api.middleware),
});

setupListeners(store.dispatch);

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
