import type { Mode } from '../plan/mode';

export const ALL: readonly Mode[] = ['in person', 'take-home', 'live online', 'follow-later', 'demonstration'];
export const WITH_KITS: readonly Mode[] = ['in person', 'take-home', 'live online', 'follow-later'];
export const TAUGHT: readonly Mode[] = ['in person', 'live online', 'follow-later', 'demonstration'];
