import { fileResponse } from '@/app/api/file-response';
import { route } from '@/app/api/problem';
import { exportCalendar } from '@/services/plan/feeds';
import { contextFor } from '@/services/runtime';

/** The whole plan as a calendar file; one course of it with ?course=. */
export async function GET(request: Request): Promise<Response> {
  return route(request, async (actor) => {
    const courseId = new URL(request.url).searchParams.get('course');
    const scope = courseId ? { scope: 'course', scopeId: courseId } : { scope: 'programme' };
    const text = await exportCalendar(contextFor(actor), scope);
    return fileResponse(text, 'text/calendar; charset=utf-8', 'logistra.ics');
  });
}
