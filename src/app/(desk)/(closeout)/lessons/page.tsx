import { call, requireMember } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { sayCount } from '@/core/quantity/say';
import { decideLesson, viewLessons } from '@/services/closeout/lessons';
import { sayLongDate } from '@/ui/dates';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Lessons' };

async function decide(
  lesson: { recipeId: string; food: string; version: number },
  word: 'taken' | 'refused',
  percent: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(decideLesson, async () => {
    const own = fields(data).percent;
    await call(decideLesson, { ...lesson, word, percent: own ? Number(own) : percent });
    return word === 'taken'
      ? 'Taken: the recipe has a new version.'
      : 'Refused. It comes again only when more is seen.';
  });
}

/** What sessions teach, with how sure it is: nothing changes before somebody takes it. */
export default async function Lessons() {
  const { actor } = await requireMember();
  const lessons = await call(viewLessons, {});
  return (
    <>
      <PageTitle title="Lessons" />
      {lessons.length === 0 && (
        <Empty title="Nothing to learn yet">
          <p>Lessons come from sessions that were closed: what was left, and what was tapped as short.</p>
        </Empty>
      )}
      {lessons.map(({ recipeId, recipe, version, food, lesson, proposed, seen, sessions, would }) => (
        <section key={`${recipeId} ${food}`} className="sheet mb-4 p-5" aria-label={`${food} in ${recipe}`}>
          <h2 className="text-xl font-bold">
            {recipe}: {proposed > 100 ? 'more' : 'less'} {food}
          </h2>
          <p className="text-lg">
            {would.map(({ now, after }) => `${now} → ${after}`).join('; ')}{' '}
            <span className="text-base">
              ({proposed} % of what is written; {lesson.sure}, from {sayCount(sessions, 'session')}; the truth lies
              between {Math.round(lesson.low * 100)} and {Math.round(lesson.high * 100)} %, nine times in ten)
            </span>
          </p>
          <ul className="list-disc pl-5 text-sm">
            {seen.map(({ title, date, over, under }) => (
              <li key={`${title} ${date}`}>
                {title}, {sayLongDate(date)}: {over > 0 && `${over} % left`}
                {over > 0 && under > 0 && ', '}
                {under > 0 && `${under} % more needed`}
              </li>
            ))}
          </ul>
          {actor.role === 'coordinator' && (
            <div className="mt-3 flex flex-wrap items-end gap-3">
              <ActionForm
                action={decide.bind(null, { recipeId, food, version }, 'taken', proposed)}
                label={`Take: ${food} in ${recipe}`}
                className="flex flex-wrap items-end gap-3"
              >
                <Field
                  label="Per cent of what is written"
                  name="percent"
                  type="number"
                  min={10}
                  max={400}
                  defaultValue={proposed}
                />
                <button type="submit" className="btn btn-primary">
                  Take it into the recipe
                </button>
              </ActionForm>
              <ActionForm
                action={decide.bind(null, { recipeId, food, version }, 'refused', proposed)}
                label={`Refuse: ${food} in ${recipe}`}
              >
                <button type="submit" className="btn">
                  Refuse it
                </button>
              </ActionForm>
            </div>
          )}
        </section>
      ))}
    </>
  );
}
