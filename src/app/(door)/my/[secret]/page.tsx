import { visit } from '@/app/access';
import { attemptAtDoor, fields } from '@/app/form';
import { minutesOf } from '@/core/plan/civil';
import { readTime } from '@/core/plan/manner';
import { sayingOf } from '@/core/plan/saying';
import { OWN_PAGE, ownByLink } from '@/services/crew/own-page';
import { ServiceError } from '@/services/errors';
import { roundsToday } from '@/services/handout/driving';
import { KeptPage } from '@/ui/crew/kept-page';
import { Offers, OwnDuties } from '@/ui/crew/own-duties';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import type { FormState } from '@/ui/form/form-state';
import { SayingOf } from '@/ui/saying';

export const metadata = { title: 'Your duties', robots: { index: false }, referrer: 'no-referrer' as const };

async function answer(secret: string, promiseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () => {
    const { answer: said, note } = fields(data);
    return OWN_PAGE.answer(await ownByLink(await visit(), secret), { promiseId, answer: said, note });
  });
}

async function take(secret: string, promiseId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () => OWN_PAGE.take(await ownByLink(await visit(), secret), { promiseId }));
}

const minute = (text: string | undefined, usual: number): number => {
  if (!text) return usual;
  const time = readTime(text);
  return time === undefined ? Number.NaN : minutesOf(time);
};

async function away(secret: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () => {
    const { date = '', from, to } = fields(data);
    const sent = { date, from: minute(from, 0), to: minute(to, 1440), isAway: true };
    await OWN_PAGE.away(await ownByLink(await visit(), secret), sent);
    return 'Noted. What you have promised then stays yours until you say no to it.';
  });
}

async function back(secret: string, date: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () => {
    await OWN_PAGE.away(await ownByLink(await visit(), secret), { date, isAway: false });
    return undefined;
  });
}

/** The page of somebody of the crew, behind their personal link. */
export default async function OwnPage({ params }: { params: Promise<{ secret: string }> }) {
  const { secret } = await params;
  const own = await ownByLink(await visit(), secret).catch((error: unknown) => {
    if (error instanceof ServiceError && error.kind !== 'limited') return undefined;
    throw error;
  });
  if (!own)
    return (
      <>
        <h1 className="mb-2 text-2xl font-bold">This page has ended</h1>
        <p>The link was ended, or a newer one was sent. Ask the coordinator of the programme for a new one.</p>
      </>
    );
  const { name, programme, says, duties, offers, away: days } = await OWN_PAGE.view(own);
  const say = sayingOf(says);
  return (
    <SayingOf value={says}>
      <h1 className="mb-1 text-2xl font-bold">Hello {name}</h1>
      <p className="mb-4 text-base-content/80">{programme}: your duties</p>
      <KeptPage />
      {(await roundsToday(own.context, own.person.id)).length > 0 && (
        <a className="btn btn-primary mb-4 h-12 w-full" href={`/my/${secret}/round`}>
          Your round to the doors today
        </a>
      )}
      <OwnDuties duties={duties} answer={(promiseId) => answer.bind(null, secret, promiseId)} say={say} />
      <Offers offers={offers} take={(promiseId) => take.bind(null, secret, promiseId)} say={say} />
      <section aria-labelledby="away" className="mt-6">
        <h2 id="away" className="text-xl font-bold">
          When you cannot
        </h2>
        <ul>
          {days.map(({ date, from, to }) => (
            <li key={`${date} ${from}`}>
              <ActionForm
                action={back.bind(null, secret, date)}
                label={`Can on ${say.longDate(date)}`}
                className="flex items-center gap-3"
              >
                <span>
                  {say.longDate(date)}
                  {(from > 0 || to < 1440) && `, ${say.time(from)} to ${say.time(Math.min(to, 1439))}`}
                </span>
                <button type="submit" className="btn btn-sm" aria-label={`I can after all: ${say.longDate(date)}`}>
                  I can after all
                </button>
              </ActionForm>
            </li>
          ))}
        </ul>
        <ActionForm action={away.bind(null, secret)} label="When you cannot" clear className="mt-2 flex flex-col gap-3">
          <DateField label="Day" name="date" required />
          <div className="grid grid-cols-2 gap-3">
            <TimeField label="From (empty: all day)" name="from" />
            <TimeField label="To" name="to" />
          </div>
          <button type="submit" className="btn h-11">
            I cannot then
          </button>
        </ActionForm>
      </section>
      <p className="mt-6 text-sm">
        <a className="link" href={`/my/${secret}/calendar.ics`}>
          Your duties as a calendar
        </a>
        : give this address to your calendar program, and it follows. What children must avoid is not on this page:
        whoever leads tells you in the room.
      </p>
    </SayingOf>
  );
}
