import { visit } from '@/app/access';
import { attemptAtDoor, fields } from '@/app/form';
import { sayingOf } from '@/core/plan/saying';
import { sayCooked, takePictureBack, viewOwnCooking } from '@/services/classday/follow-later';
import { ServiceError } from '@/services/errors';
import { kitByLink, sayOfKit, viewOwnKit } from '@/services/handout/families';
import { OwnPicture } from '@/ui/classday/own-picture';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

export const metadata = { title: 'Your kit', robots: { index: false }, referrer: 'no-referrer' as const };

async function say(secret: string, word: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () =>
    sayOfKit(await kitByLink(await visit(), secret), { word, note: fields(data).note ?? '' }),
  );
}

async function cooked(secret: string, word: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () =>
    sayCooked(await kitByLink(await visit(), secret), { word, note: fields(data).note ?? '' }),
  );
}

async function takeBack(secret: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attemptAtDoor(async () => takePictureBack(await kitByLink(await visit(), secret)));
}

/** A family's page of its kit, behind its own link. */
export default async function OwnKit({ params }: { params: Promise<{ secret: string }> }) {
  const { secret } = await params;
  const found = await kitByLink(await visit(), secret)
    .then((own) => Promise.all([viewOwnKit(own), viewOwnCooking(own)]))
    .catch((error: unknown) => {
      if (error instanceof ServiceError && error.kind !== 'limited') return undefined;
      throw error;
    });
  if (!found)
    return (
      <>
        <h1 className="mb-2 text-2xl font-bold">This page has ended</h1>
        <p>Ask whoever runs the programme.</p>
      </>
    );
  const [kit, cooking] = found;
  const { longDate } = sayingOf(kit.says);
  const isGone = kit.kits.every(({ state }) => state === 'gone');
  return (
    <>
      <p className="text-base-content/80">{kit.programme}</p>
      <h1 className="mb-3 text-2xl font-bold">Your kit: {kit.title}</h1>
      <p className="mb-4 text-lg">
        {longDate(kit.date)}, {kit.when}, {kit.where}.
      </p>
      {isGone ? (
        <p className="mb-4 font-semibold">It was handed out. What is cold in it goes into your fridge at once.</p>
      ) : (
        !kit.isOver && (
          <div className="mb-5 flex flex-col gap-4">
            {kit.said && (
              <p role="status" className="rounded-box bg-base-200 p-3">
                You said: {kit.said.word === 'confirmed' ? 'somebody will be there.' : `later. “${kit.said.note}”`}
              </p>
            )}
            <ActionForm action={say.bind(null, secret, 'confirmed')} label="Somebody will be there">
              <button type="submit" className="btn btn-primary h-12 w-full">
                Somebody will be there
              </button>
            </ActionForm>
            <ActionForm
              action={say.bind(null, secret, 'later')}
              label="We need it later"
              className="flex flex-col gap-2"
            >
              <Field label="When, or where, would it suit you?" name="note" maxLength={200} />
              <button type="submit" className="btn h-12">
                We need it later
              </button>
            </ActionForm>
          </div>
        )
      )}
      {kit.kits.map(({ name, inside }) => (
        <details key={name} className="mb-3">
          <summary className="cursor-pointer font-semibold">What is in it: {name}</summary>
          <ul className="list-disc pl-5">
            {inside.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      ))}
      {cooking.lesson && (
        <section className="mb-4" aria-labelledby="lesson">
          <h2 id="lesson" className="text-xl font-bold">
            How it is cooked
          </h2>
          <p className="whitespace-pre-line">{cooking.lesson}</p>
        </section>
      )}
      {cooking.mayCook && isGone && (
        <section className="mb-5 flex flex-col gap-3" aria-labelledby="cooked">
          <h2 id="cooked" className="text-xl font-bold">
            Did you cook it?{cooking.cookBy && ` By ${longDate(cooking.cookBy)}, while it is fresh.`}
          </h2>
          {cooking.cooked && (
            <p role="status" className="rounded-box bg-base-200 p-3">
              You said: {cooking.cooked.word}.{cooking.cooked.note && ` “${cooking.cooked.note}”`}
            </p>
          )}
          <ActionForm action={cooked.bind(null, secret, 'cooked')} label="We cooked it" className="flex flex-col gap-2">
            <Field label="Was something missing, or too much?" name="note" maxLength={200} />
            <button type="submit" className="btn btn-primary h-12">
              We cooked it
            </button>
          </ActionForm>
          <ActionForm action={cooked.bind(null, secret, 'not cooked')} label="We did not cook it">
            <button type="submit" className="btn h-12 w-full">
              We did not cook it
            </button>
          </ActionForm>
          {cooking.pictures.length > 0 ? (
            <ActionForm action={takeBack.bind(null, secret)} label="Your picture">
              <p>Your picture is kept until {longDate(cooking.pictures[0]?.endsOn ?? kit.date)}.</p>
              <button type="submit" className="btn h-12 w-full">
                Take the picture back
              </button>
            </ActionForm>
          ) : (
            <OwnPicture address={`/kit/${secret}/picture`} />
          )}
        </section>
      )}
      <ActionForm action={say.bind(null, secret, 'card')} label="Send us the recipe">
        <button type="submit" className="btn h-12 w-full">
          {kit.cardSent ? 'Send us the recipe again' : 'Send us the recipe'}
        </button>
      </ActionForm>
    </>
  );
}
