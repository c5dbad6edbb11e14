import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { FigureRef } from '../../../wire/workings';

/** The figures opened one from the other; the last is shown. Empty: the drawer is shut. */
export const workingsSlice = createSlice({
  name: 'workings',
  initialState: { trail: [] as FigureRef[] },
  reducers: {
    opened: (state, action: PayloadAction<FigureRef>) => void (state.trail = [action.payload]),
    followed: (state, action: PayloadAction<FigureRef>) => void state.trail.push(action.payload),
    wentBack: (state) => void state.trail.pop(),
    shut: (state) => void (state.trail = []),
  },
});

export const { opened, followed, wentBack, shut } = workingsSlice.actions;
