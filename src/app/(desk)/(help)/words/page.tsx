import Link from 'next/link';
import { requireMember } from '@/app/access';
import { MODE_SAYS, MODES } from '@/core/plan/mode';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Words' };

/** What words mean here that not everybody says at work, in the order in which one meets them. */
const WORDS = [
  ['Course', 'Sessions that belong together, with one roll.'],
  [
    'Session',
    'One time that a course meets, or hands out its kits. Given to several groups, it is planned and bought for once.',
  ],
  ['Roll', 'Who is in a course, how much each eats, and what each must avoid, in the family’s own words.'],
  [
    'Needs and meanings',
    'A family writes “no nuts please”; somebody says once what that stands for. Until then no kit is made for it.',
  ],
  ['Kit', 'What one participant, or one family that shares, gets: food measured for them, with a label.'],
  [
    'Kit A, kit B',
    'Kits that are alike in every ingredient share a letter. Nobody’s need stands on the outside: letter and name do.',
  ],
  [
    'Made without',
    'A kit from which something was left out or replaced, because somebody must avoid it. It is packed first, on clean tools, and closed.',
  ],
  ['Kit sheet', 'How much of what goes into each kit. It is a draft until it is locked.'],
  [
    'Lock, version',
    'From the lock on nothing changes under the packers’ hands. What changed since is shown as a difference, and becomes the next version.',
  ],
  ['Called back', 'Somebody’s need changed after the lock: this kit does not go until it is packed anew.'],
  ['Lot', 'Something on a shelf that came in together: one pack size, one last day, one label.'],
  ['Thread, countdown', 'The jobs of a session, counted back from what they serve: by when each has to begin.'],
  ['Run sheet', 'Who does what when in a class, so that the dishes end together.'],
  ['Swap-in', 'A dish made before the class, to be eaten in it, where cooking would take too long.'],
  ['Made ahead', 'What soaks, marinates, cools or sets before it is packed or cooked, with its temperatures.'],
  ['Reserve', 'Kits beside those that are expected, by how many usually come.'],
  ['Edible share', 'What is left of a food when it is peeled and trimmed: buying goes by it.'],
  ['Close out', 'Three minutes after a session: what was left, bad, or ran short. Lessons come from it.'],
  [
    'Lesson',
    'What several sessions say of an amount, a spare, a minute, with how sure it is. Nothing changes before somebody takes it.',
  ],
] as const;

export default async function Words() {
  await requireMember();
  return (
    <>
      <PageTitle title="Words" over="What they mean here">
        <Link href="/guide" className="btn">
          Guide for packers
        </Link>
      </PageTitle>
      <dl className="sheet grid gap-x-8 gap-y-4 p-5 md:grid-cols-2">
        {WORDS.map(([word, means]) => (
          <div key={word}>
            <dt className="font-bold">{word}</dt>
            <dd>{means}</dd>
          </div>
        ))}
        {MODES.map((mode) => (
          <div key={mode}>
            <dt className="font-bold">{mode}</dt>
            <dd>
              {MODE_SAYS[mode][0]?.toUpperCase()}
              {MODE_SAYS[mode].slice(1)}.
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}
