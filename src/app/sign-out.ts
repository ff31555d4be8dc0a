'use server';

import { redirect } from 'next/navigation';
import { endSignIn } from '@/services/access/sign-in';
import { signedIn, visit } from './access';

/** Ends this browser's sign-in. */
export async function signOut(): Promise<void> {
  const session = await signedIn();
  if (session.signInId) await endSignIn(await visit(), session.signInId);
  session.destroy();
  redirect('/sign-in');
}
