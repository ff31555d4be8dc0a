import { z } from 'zod';
import { signedIn, visit } from '@/app/access';
import { problem, readJson, route } from '@/app/api/problem';
import { proveAgain } from '@/services/access/account';

const sent = z.object({ password: z.string().max(400) });

/** The password given once more, before what cannot be undone. */
export async function POST(request: Request): Promise<Response> {
  return route(request, async () => {
    const reading = sent.safeParse(await readJson(request, 4096));
    const { signInId } = await signedIn();
    if (!reading.success || !signInId) return problem(422, 'Send the password of the one who is signed in.');
    const fits = await proveAgain(await visit(), signInId, reading.data.password);
    return fits ? new Response(null, { status: 204 }) : problem(422, 'This is not your password.');
  });
}
