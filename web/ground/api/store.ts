import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { api } from './api';
import { followAdditions } from './followAdditions';
import { approvalSlice } from '../approvals/approvalSlice';
import { workingsSlice } from '../workings/workingsSlice';

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    [workingsSlice.name]: workingsSlice.reducer,
    [approvalSlice.name]: approvalSlice.reducer,
  },
  middleware: (defaults) => defaults().concat(api.middleware),
});
setupListeners(store.dispatch);
followAdditions();

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
