import { combineSlices, configureStore, type Reducer } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query/react';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import { draftsReducer } from './drafts.ts';
import { persistence, readPersisted } from './persistence.ts';
import { outboxReducer } from './outbox.ts';
import { preferencesReducer } from './preferences.ts';

/** What rooms add to the state: each declares its own part here, and adds it with `addSlice`. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- rooms merge their parts into it
export interface RoomSlices {}

const reducer = combineSlices({
  [api.reducerPath]: api.reducer,
  preferences: preferencesReducer,
  drafts: draftsReducer,
  outbox: outboxReducer,
}).withLazyLoadedSlices<RoomSlices>();

const created = configureStore({
  reducer,
  preloadedState: readPersisted() as Partial<ReturnType<typeof reducer>>,
  middleware: (defaults) => defaults().prepend(persistence.middleware).concat(api.middleware),
});

export type RootState = ReturnType<typeof created.getState> & RoomSlices;

/** The state of this device. What a room adds is there wherever that room is. */
export const store = created as Omit<typeof created, 'getState'> & { readonly getState: () => RootState };

setupListeners(store.dispatch);

/**
 * Adds a room's part to the state, as the room is first loaded: it is there from then on.
 *
 * @example addSlice('locking', slice.reducer)
 */
export function addSlice<Name extends keyof RoomSlices>(name: Name, slice: Reducer<RoomSlices[Name]>): void {
  reducer.inject({ reducerPath: name, reducer: slice } as never);
  store.dispatch({ type: `${name}/added` });
}

export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
