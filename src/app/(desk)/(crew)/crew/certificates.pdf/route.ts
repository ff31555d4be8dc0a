import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportHours } from '@/services/crew/hours';
import { contextFor } from '@/services/runtime';

/** A certificate of the hours of the crew between two days, a page for each person (PDF). */
export async function GET(request: Request): Promise<Response> {
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  return route(request, async (actor) =>
    fileResponse(
      (await exportHours(contextFor(actor), { ...asked, as: 'certificate' })) as Uint8Array<ArrayBuffer>,
      'application/pdf',
      'certificates.pdf',
    ),
  );
}
