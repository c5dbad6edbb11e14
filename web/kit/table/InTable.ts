import { createContext } from 'react';

/** True inside the rows of a table: what opens there is reached by arrows and opened by Enter, and is no stop of Tab. */
export const InTable = createContext(false);
