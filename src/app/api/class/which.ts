export type ClassParams = { params: Promise<{ sessionId: string; sitting: string }> };

/** Which class an address names: the first group, or the only one, is called "first" there. */
export async function whichClass(params: ClassParams['params']): Promise<{ sessionId: string; sitting: string }> {
  const { sessionId, sitting } = await params;
  return { sessionId, sitting: sitting === 'first' ? '' : sitting };
}

/** What was sent, where it is an object. */
export const objectOf = (body: unknown): object =>
  body && typeof body === 'object' && !Array.isArray(body) ? body : {};
