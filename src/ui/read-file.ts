import type { FormState } from './form/form-state';

/** Sends a file, or a text, to be read; nothing is saved. @param signal stops it @returns what was understood, or why nothing was */
export async function sendForReading<T>(
  address: string,
  body: Blob,
  signal?: AbortSignal,
): Promise<{ readonly found: T } | { readonly refused: FormState }> {
  const response = await fetch(address, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body,
    signal: signal ?? null,
  }).catch(() => null);
  const answer = await response?.json().catch(() => null);
  if (response?.ok) return { found: answer as T };
  return {
    refused: {
      ok: false,
      message:
        answer?.title ??
        (signal?.aborted ? 'Cancelled: nothing was read.' : 'The server did not answer. Try again in a moment.'),
      problems: answer?.problems,
    },
  };
}
