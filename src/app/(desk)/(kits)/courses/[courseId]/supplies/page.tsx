import Link from 'next/link';
import type { ReactNode } from 'react';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { CONSUMED_PER } from '@/core/kits/figures/consumables';
import { type CourseSupply, USUAL_CUTS_FROM } from '@/core/kits/supply/series';
import { viewKitRules } from '@/services/kits/rules';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import { Caution, PageTitle } from '@/ui/page';
import { addConsumable, addSupply, saveClass, takeAway } from './actions';

export const metadata = { title: 'Supplies' };

/** "from session 2 to 5", '' for the whole course. */
function sayWhen({ from, until }: CourseSupply): string {
  if (until !== undefined) return from === until ? `, only session ${from}` : `, sessions ${from} to ${until}`;
  return from > 1 ? `, from session ${from}` : '';
}

const saySupply = (supply: CourseSupply) =>
  supply.kind === 'jar'
    ? `${supply.name}, jar of ${supply.grams} g${sayWhen(supply)}`
    : `${(supply.count ?? 1) > 1 ? `${supply.count} ` : ''}${supply.name}${sayWhen(supply)}`;

export default async function Supplies({ params }: { params: Promise<{ courseId: string }> }) {
  const { courseId } = await params;
  const { course, rules, foods } = await orNotFound(call(viewKitRules, { courseId }));
  const { version } = course;
  const of = (kind: CourseSupply['kind']) => rules.supplies.filter((supply) => supply.kind === kind);
  const items = (list: readonly { id: string; say: string; name: string }[]) => (
    <ul className="mb-3 divide-y divide-base-300">
      {list.map(({ id, say, name }) => (
        <li key={id} className="flex items-center justify-between gap-3 py-1.5">
          <span>{say}</span>
          <ActionForm action={takeAway.bind(null, courseId, version, id)} label={`Take ${name} away`}>
            <button type="submit" className="btn btn-sm" aria-label={`Take ${name} away`}>
              Take away
            </button>
          </ActionForm>
        </li>
      ))}
    </ul>
  );
  const when = (
    <>
      <Field label="From session" name="from" type="number" min={1} max={500} defaultValue={1} />
      <Field label="Until session" name="until" type="number" min={1} max={500} hint="empty: to the end" />
    </>
  );
  return (
    <>
      <PageTitle title={`Supplies of ${course.title}`} over="What goes with its kits beside measured food">
        <Link href={`/courses/${courseId}`} className="btn">
          The course
        </Link>
      </PageTitle>
      <datalist id="foods">
        {foods.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <div className="grid gap-6 lg:grid-cols-2">
        <Part
          id="once"
          title="Issued once"
          say="Equipment that families keep for the course. It goes with their first kit; who joins late gets what sessions still to come need."
        >
          {items(of('issue once').map((supply) => ({ ...supply, say: saySupply(supply) })))}
          <ActionForm
            action={addSupply.bind(null, courseId, version, 'issue once')}
            version={version}
            label="Add equipment"
            clear
            className="grid grid-cols-2 gap-2 sm:grid-cols-4"
          >
            <Field label="Equipment" name="name" required maxLength={80} width="col-span-2" />
            <Field label="Pieces in a kit" name="count" type="number" min={1} max={50} defaultValue={1} />
            {when}
            <button type="submit" className="btn btn-primary col-span-full w-fit">
              Add equipment
            </button>
          </ActionForm>
        </Part>
        <Part
          id="jars"
          title="Jars for the course"
          say="A jar goes with the first kit and is drawn down by every dish that uses its food; the next goes out when it no longer suffices."
        >
          {items(of('jar').map((supply) => ({ ...supply, say: saySupply(supply) })))}
          <ActionForm
            action={addSupply.bind(null, courseId, version, 'jar')}
            version={version}
            label="Add a jar"
            clear
            className="grid grid-cols-2 gap-2 sm:grid-cols-4"
          >
            <Field label="Food" name="name" required maxLength={80} list="foods" width="col-span-2" />
            <Field label="Grams in one" name="grams" inputMode="decimal" required />
            {when}
            <button type="submit" className="btn btn-primary col-span-full w-fit">
              Add jar
            </button>
          </ActionForm>
        </Part>
        <Part
          id="consumables"
          title="Used up"
          say="Bags, ice packs, forks, gloves: counted from kits and heads. Containers are counted from what is measured, paper and foil from the steps."
        >
          {items(
            rules.consumables.map(({ id, name, per, count, pack }) => ({
              id,
              name,
              say: `${count} ${name} per ${per}${pack ? `, in packs of ${pack}` : ''}`,
            })),
          )}
          <ActionForm
            action={addConsumable.bind(null, courseId, version)}
            version={version}
            label="Add a consumable"
            clear
            className="grid grid-cols-2 gap-2 sm:grid-cols-4"
          >
            <Field label="What" name="name" required maxLength={80} width="col-span-2" />
            <Field label="How many" name="count" type="number" min={1} max={50} defaultValue={1} required />
            <Choice label="For each" name="per" defaultValue="kit">
              {CONSUMED_PER.map((per) => (
                <option key={per}>{per}</option>
              ))}
            </Choice>
            <Field label="In a pack" name="pack" type="number" min={1} max={10000} hint="empty: singly" />
            <button type="submit" className="btn btn-primary col-span-full w-fit">
              Add
            </button>
          </ActionForm>
        </Part>
        <Part
          id="class"
          title="In the class"
          say="What is to be cut at class comes whole to those who are old enough, and cut to the younger ones."
        >
          <ActionForm
            action={saveClass.bind(null, courseId, version)}
            version={version}
            label="In the class"
            className="flex flex-col gap-3"
          >
            <Field
              label="Cuts at class from this age"
              name="cutsFrom"
              type="number"
              min={3}
              max={18}
              defaultValue={rules.cutsFrom ?? ''}
              hint={`Empty: ${USUAL_CUTS_FROM} years. A session says what stays whole.`}
              width="max-w-56"
            />
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                name="goesHome"
                defaultChecked={rules.goesHome ?? false}
                className="checkbox checkbox-sm"
              />
              What is made in class goes home in labelled bags
            </label>
            <button type="submit" className="btn btn-primary w-fit">
              Save
            </button>
          </ActionForm>
        </Part>
      </div>
      <div className="mt-6">
        <Caution>Knives for children: shown first, practised with the claw grip, an adult at the table.</Caution>
      </div>
    </>
  );
}

function Part({ id, title, say, children }: { id: string; title: string; say: string; children: ReactNode }) {
  return (
    <section className="sheet h-fit p-5" aria-labelledby={id}>
      <h2 id={id} className="mb-1 text-xl font-bold">
        {title}
      </h2>
      <p className="mb-3 text-sm">{say}</p>
      {children}
    </section>
  );
}
