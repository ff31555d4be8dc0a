import { fileResponse } from '@/app/api/file-response';
import { ANY_FILE, readBounded, route } from '@/app/api/problem';
import { LARGEST_PICTURE } from '@/contracts/picture';
import { attachReceipt, viewReceipt } from '@/services/buying/receipts';
import { contextFor } from '@/services/runtime';

type Params = { params: Promise<{ tripId: string }> };

/** The photograph of a trip's receipt. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { kind, picture } = await viewReceipt(contextFor(actor), await params);
    const [, ending = ''] = kind.split('/');
    return fileResponse(picture, kind, `receipt.${ending}`, true);
  });
}

/** Keeps a photograph of the receipt, in place of the one before. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  return route(request, async (actor) => {
    const { tripId } = await params;
    const bytes = await readBounded(request, LARGEST_PICTURE, ANY_FILE);
    await attachReceipt(contextFor(actor), { tripId, bytes });
    return new Response(null, { status: 204 });
  });
}
