export const FILE: string;
export function hostileRequests(seed: number): unknown[];
