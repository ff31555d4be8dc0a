'use client';

import { createContext, useContext } from 'react';

export const Pending = createContext(false);

/** Whether the form around is being sent just now. */
export const usePending = (): boolean => useContext(Pending);
