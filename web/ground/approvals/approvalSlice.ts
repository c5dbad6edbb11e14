import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Sent } from '../api/endpoints';

/** What was sent and has to be approved first, with what the server said to it. */
export interface Needed {
  sent: Sent;
  message: string;
}

/** What is asked about now; null for nothing. */
export const approvalSlice = createSlice({
  name: 'approval',
  initialState: { needed: null as Needed | null },
  reducers: {
    approvalNeeded: (state, action: PayloadAction<Needed>) => void (state.needed = action.payload),
    approvalAsked: (state) => void (state.needed = null),
  },
});

export const { approvalNeeded, approvalAsked } = approvalSlice.actions;
