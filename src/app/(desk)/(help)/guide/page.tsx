import Link from 'next/link';
import { requireMember } from '@/app/access';
import { Caution, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Guide for packers' };

/** For somebody who packs for the first time: a page to print and hang up. */
const STEPS = [
  [
    'Before you touch food',
    'Hair back, sleeves up, rings off, hands washed with soap for twenty seconds and dried. Ill in the last two days? Go home: nobody minds.',
  ],
  ['Sign in at the door', 'Somebody taps that you came. Your hours are kept from it.'],
  [
    'Look at the bench',
    'The screen says one ingredient at a time, and how much goes into each kit. Letters are kits that are alike; the number says how many.',
  ],
  [
    'Kits made without something come first',
    'Clean board, clean spoon, clean scale. They are looked at by a second person, closed, and set apart. Nothing else is opened near them.',
  ],
  [
    'Measure as it says',
    'Level cups and spoons. Where the screen shows grams, the scale counts. “About” is said where it may be about.',
  ],
  ['Tick when it is in', 'Not before. Two people may tick on two screens: it counts once.'],
  [
    'It does not match?',
    'The pack in your hand has another name, another label, is open, or past its day: stop, and ask. A wrong pack is how somebody gets hurt.',
  ],
  ['It runs short?', 'Say so early. The screen shows what is left and what can be done; do not stretch it by eye.'],
  ['A kit is called back', 'It turns red. Put it aside, unopened, and ask: somebody’s need has changed.'],
  [
    'Cold food',
    'Comes out of the fridge last and goes back first. What stood out for longer than the lead says is not packed.',
  ],
  [
    'Raw meat and eggs',
    'Own board, own knife, packed last, at the bottom. Hands with soap afterwards; gel does not take away what somebody is allergic to.',
  ],
  ['When you go', 'Wipe your place, tap out at the door. Thank you.'],
] as const;

export default async function Guide() {
  await requireMember();
  return (
    <>
      <PageTitle title="Packing for the first time" over="One page to print and hang up">
        <Link href="/words" className="btn">
          Words
        </Link>
        <PrintButton />
      </PageTitle>
      <ol className="sheet grid gap-x-8 gap-y-4 p-5 md:grid-cols-2 print:grid-cols-2 print:text-sm">
        {STEPS.map(([title, text], at) => (
          <li key={title} className="keep-together">
            <b>
              {at + 1}. {title}.
            </b>{' '}
            {text}
          </li>
        ))}
      </ol>
      <Caution>The lead, your venue’s rules and the local code go before this page.</Caution>
    </>
  );
}
