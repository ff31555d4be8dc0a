import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { HOME_HEAT, HOME_TOOLS } from '@/contracts/kits';
import { timeOf } from '@/core/plan/civil';
import type { InputOf } from '@/services/gate/gate';
import { setHome, viewHousehold } from '@/services/roll/home';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution, PageTitle } from '@/ui/page';
import { amountLines } from '@/ui/recipes/amount-lines';
import { keepDoor } from '../../../(handout)/keep-door';

export const metadata = { title: 'Household' };

async function save(
  householdId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(setHome, async () => {
    const {
      staples = '',
      box = '',
      language = '',
      consent = '',
      helpers = '',
      collectors = '',
      ...sent
    } = fields(data);
    const checked = (name: string) => data.getAll(name).map(String);
    const home = {
      ...(sent.askedHeat ? { heat: checked('heat') } : {}),
      ...(sent.askedTools ? { tools: checked('tools') } : {}),
      staples: foodList(staples),
      box: amountLines(box, ['g', 'kg']).map(({ name, amount }) => ({ ingredient: name.toLowerCase(), grams: amount })),
      ...(language ? { language } : {}),
      ...(consent ? { consent } : {}),
      ...(helpers ? { helpers } : {}),
      photos: sent.photos === 'on',
      collectors: nameList(collectors),
    };
    const { home: was } = await call(viewHousehold, { householdId });
    await call(setHome, { householdId, version, home });
    const undo = putBack.bind(null, householdId, version + 1, was);
    return { message: 'Saved. Kits that are not locked follow at once.', undo };
  });
}

type Home = Awaited<ReturnType<typeof viewHousehold>>['home'];

/** What a household has at home is as before; refused when somebody changed it since. */
async function putBack(householdId: string, version: number, home: Home): Promise<FormState> {
  'use server';
  return attempt(setHome, async () => {
    await call(setHome, { householdId, version, home: home as InputOf<typeof setHome>['home'] });
    return 'As before.';
  });
}

/** Names written a line each, or between commas; each once. */
const nameList = (text: string): string[] => [
  ...new Set(
    text
      .split(/[\n;,]/)
      .map((name) => name.trim())
      .filter(Boolean),
  ),
];

/** Foods written a line each, or between commas; each once. */
const foodList = (text: string): string[] => [
  ...new Set(
    text
      .split(/[\n;,]/)
      .map((food) => food.trim().toLowerCase())
      .filter((food) => food !== ''),
  ),
];

const STATUS_WORDS: Readonly<Record<string, string>> = { waitlisted: 'waiting' };

export default async function Household({ params }: { params: Promise<{ householdId: string }> }) {
  const { householdId } = await params;
  const { household, home, people, foods } = await orNotFound(call(viewHousehold, { householdId }));
  return (
    <>
      <PageTitle title={household.name} over="Household: who it is, what it has at home, what it agreed to">
        <Link href={`/families/${householdId}/record`} prefetch={false} className="btn">
          Their record
        </Link>
        <Link href="/families" className="btn">
          Families’ data
        </Link>
      </PageTitle>
      <datalist id="foods">
        {foods.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <div className="grid gap-6 lg:grid-cols-[20rem_minmax(0,1fr)]">
        <section className="sheet h-fit p-5" aria-labelledby="people">
          <h2 id="people" className="mb-2 text-xl font-bold">
            {people.length} on rolls
          </h2>
          <ul className="mb-4 divide-y divide-base-300">
            {people.map(({ id, name, age, courseId, course, status }) => (
              <li key={id} className="py-1.5">
                <Link href={`/courses/${courseId}/roll?show=all&edit=${id}`} className="link font-semibold">
                  {name}
                </Link>
                {age !== null && `, ${age}`}
                <span className="block text-sm">
                  {course}, {STATUS_WORDS[status] ?? status}
                </span>
              </li>
            ))}
          </ul>
          <dl className="text-sm">
            <dt className="font-semibold">Contact</dt>
            <dd className="mb-2">{household.contact || 'none left'}</dd>
            <dt className="font-semibold">Address</dt>
            <dd>{household.address || 'none left'}</dd>
          </dl>
        </section>
        <section className="sheet h-fit p-5" aria-labelledby="home">
          <h2 id="home" className="mb-1 text-xl font-bold">
            At home
          </h2>
          <p className="mb-3 text-sm">
            As the family told you. Left unasked, nothing is assumed: everything is packed, and a dish that needs an
            oven is asked about.
          </p>
          <ActionForm
            action={save.bind(null, householdId, household.version)}
            version={household.version}
            label="At home"
            className="flex flex-col gap-4"
          >
            <Checks legend="Heat" name="heat" asked="askedHeat" options={HOME_HEAT} chosen={home.heat} />
            <Checks legend="Tools" name="tools" asked="askedTools" options={HOME_TOOLS} chosen={home.tools} />
            <label className="flex flex-col gap-1">
              <span className="text-sm font-semibold">Staples they agreed to use</span>
              <textarea
                name="staples"
                rows={2}
                maxLength={2000}
                className="textarea w-full"
                defaultValue={home.staples?.join('\n')}
              />
              <span className="text-xs text-base-content/75">
                A food a line. Not packed, unless their pack could hold what the kit must be made without.
              </span>
            </label>
            <label className="flex flex-col gap-1">
              <span className="text-sm font-semibold">A box they receive anyway</span>
              <textarea
                name="box"
                rows={3}
                maxLength={4000}
                className="textarea w-full"
                defaultValue={home.box?.map(({ ingredient, grams }) => `${ingredient}, ${grams} g`).join('\n')}
              />
              <span className="text-xs text-base-content/75">
                A food a line with its grams: “carrot, 500 g”. Kits top it up, never double it.
              </span>
            </label>
            <div className="grid gap-3 sm:grid-cols-3">
              <Field label="Language" name="language" maxLength={40} defaultValue={home.language} />
              <DateField
                label="Consent to keep needs, given on"
                name="consent"
                defaultValue={home.consent}
                hint="Empty: not given yet"
              />
              <Field
                label="Adults who come and help"
                name="helpers"
                type="number"
                min={0}
                max={9}
                defaultValue={home.helpers ?? ''}
              />
            </div>
            <Field
              label="Others who may fetch the kit"
              name="collectors"
              defaultValue={home.collectors?.join(', ')}
              hint="Names, with commas between: who hands out sees them beside the kit."
            />
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                name="photos"
                defaultChecked={home.photos ?? false}
                className="checkbox checkbox-sm"
              />
              Photographs of the children are allowed
            </label>
            <button type="submit" className="btn btn-primary w-fit">
              Save
            </button>
          </ActionForm>
        </section>
        <section className="sheet p-5" aria-labelledby="door">
          <h2 id="door" className="text-xl font-bold">
            Their door
          </h2>
          <p className="mb-2 text-sm">{household.address || 'No address is written on the roll.'}</p>
          <ActionForm
            version={household.version}
            isUndoable
            action={keepDoor.bind(null, household.id, household.version)}
            label="Their door"
            className="flex flex-col gap-3"
          >
            <Field
              label="Point on the map"
              name="point"
              defaultValue={household.door.at?.join(', ') ?? ''}
              hint="As 44.1032, -68.3341: the latitude first."
            />
            <div className="grid gap-3 sm:grid-cols-2">
              <TimeField
                label="Somebody is there from"
                name="from"
                defaultValue={household.door.from === undefined ? '' : timeOf(household.door.from)}
              />
              <TimeField
                label="Until"
                name="to"
                defaultValue={household.door.to === undefined ? '' : timeOf(household.door.to)}
              />
            </div>
            <Field label="For the driver" name="note" defaultValue={household.door.note ?? ''} />
            <button type="submit" className="btn w-fit">
              Keep the door
            </button>
          </ActionForm>
        </section>
      </div>
      <div className="mt-6">
        <Caution>
          The label of what a family has at home was not read here: who must avoid something reads it before cooking.
        </Caution>
      </div>
    </>
  );
}

/** What they have of a few things; only where somebody asked does an empty answer say that they have none. */
function Checks({
  legend,
  name,
  asked,
  options,
  chosen,
}: {
  legend: string;
  name: string;
  asked: string;
  options: readonly string[];
  chosen: readonly string[] | undefined;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{legend}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        {options.map((option) => (
          <label key={option} className="flex items-center gap-2">
            <input
              type="checkbox"
              name={name}
              value={option}
              defaultChecked={chosen?.includes(option)}
              className="checkbox checkbox-sm"
            />
            {option}
          </label>
        ))}
        <label className="flex items-center gap-2 border-l border-base-300 pl-5">
          <input type="checkbox" name={asked} defaultChecked={chosen !== undefined} className="checkbox checkbox-sm" />
          the family was asked
        </label>
      </div>
    </fieldset>
  );
}
