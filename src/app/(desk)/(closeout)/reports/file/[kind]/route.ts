import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportReport } from '@/services/closeout/reports';
import { contextFor } from '@/services/runtime';
import { askedIn } from '../../asked';

const TYPES: Readonly<Record<string, string>> = {
  pdf: 'application/pdf',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  csv: 'text/csv; charset=utf-8',
};

/** A report of past sessions as PDF, workbook or CSV. */
export async function GET(request: Request, { params }: { params: Promise<{ kind: string }> }): Promise<Response> {
  const { kind } = await params;
  const asked = askedIn(Object.fromEntries(new URL(request.url).searchParams));
  return route(request, async (actor) => {
    const { title, body } = await exportReport(contextFor(actor), { ...asked, as: kind as 'pdf' });
    return fileResponse(body as BodyInit, TYPES[kind] ?? '', `${title}.${kind}`);
  });
}
