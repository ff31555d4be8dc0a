'use client';

import { useEffect } from 'react';
import { forgetDrafts } from './kept-draft';

/** Stands where somebody signs in: what another typed in this tab is gone. */
export function ForgetDrafts() {
  useEffect(forgetDrafts, []);
  return null;
}
