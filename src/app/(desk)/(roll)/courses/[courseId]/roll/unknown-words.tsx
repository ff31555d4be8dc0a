import type { Reference } from '@/core/reference/reference';
import { AVOIDANCES } from '@/core/safety/avoidances';
import { proposeMeaning } from '@/core/safety/propose-meaning';
import { ActionForm } from '@/ui/form/action-form';
import { giveWord, wereAsked } from './actions';

/** Words of families that nobody has given a meaning to: they block kits until the coordinator says what they stand for. */
export function UnknownWords({ words, reference }: { words: readonly string[]; reference: Reference }) {
  return (
    <section
      className="no-print mb-6 rounded-box border border-error border-l-4 bg-base-100 p-4"
      aria-labelledby="words"
    >
      <h2 id="words" className="text-xl font-bold">
        What do these words mean?
      </h2>
      <p className="mb-2 text-sm">
        They are kept as the family wrote them and block the kit until you say what to avoid. What is ticked is likely,
        not certain: ask the family when in doubt. The meaning then holds for the whole programme.
      </p>
      {words.map((word) => (
        <Word key={word} word={word} reference={reference} />
      ))}
    </section>
  );
}

/** People whom nobody asked: their kits wait until somebody says what they must not eat. */
export function NotAsked({
  courseId,
  people,
}: {
  courseId: string;
  people: readonly { readonly id: string; readonly name: string }[];
}) {
  return (
    <section
      className="no-print mb-6 rounded-box border border-error border-l-4 bg-base-100 p-4"
      aria-labelledby="not-asked"
    >
      <h2 id="not-asked" className="text-xl font-bold">
        {people.length === 1 ? 'One person was' : `${people.length} people were`} not asked what they must not eat
      </h2>
      <p className="mb-2 text-sm">
        The file that they came with did not say. Their kits wait. Ask the families; write what they tell you under
        “Avoids”, and tick here those who were asked and avoid nothing more than is written.
      </p>
      <ActionForm action={wereAsked.bind(null, courseId)} label="Were asked" className="flex flex-col gap-3">
        <div className="flex flex-wrap gap-x-5 gap-y-1">
          {people.map(({ id, name }) => (
            <label key={id} className="flex items-center gap-2 py-1">
              <input type="checkbox" className="checkbox checkbox-sm" name="person" value={id} /> {name}
            </label>
          ))}
        </div>
        <button type="submit" className="btn btn-primary w-fit">
          They were asked: nothing more
        </button>
      </ActionForm>
    </section>
  );
}

function Word({ word, reference }: { word: string; reference: Reference }) {
  const { codes, foods, note } = proposeMeaning(word, reference);
  const likely = [...AVOIDANCES.filter(({ code }) => codes.includes(code)).map(({ label }) => label), ...foods];
  const others = reference.ingredients.map(({ name }) => name).filter((name) => !foods.includes(name));
  return (
    <details className="border-t border-base-300 py-2">
      <summary className="cursor-pointer py-1">
        <b>“{word}”</b>
        {likely.length > 0 && `: likely ${likely.slice(0, 4).join(', ')}${likely.length > 4 ? ' …' : ''}`}
      </summary>
      <ActionForm action={giveWord.bind(null, word)} label={`Meaning of ${word}`} className="mt-2 flex flex-col gap-3">
        {note && <p className="text-sm font-semibold">{note}</p>}
        <Boxes
          name="codes"
          legend="Stands for"
          options={AVOIDANCES.map(({ code, label }) => ({ value: code, label }))}
          ticked={codes}
        />
        {foods.length > 0 && (
          <Boxes name="foods" legend="Foods called so" options={foods.map(asOption)} ticked={foods} />
        )}
        <details>
          <summary className="cursor-pointer text-sm font-semibold">Other single foods</summary>
          <p className="my-1 text-sm">A single food is avoided by itself: tick what is made of it too.</p>
          <Boxes name="foods" legend="Also" options={others.sort().map(asOption)} ticked={[]} />
        </details>
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="btn btn-primary">
            Give this meaning
          </button>
          <button type="submit" name="nothing" value="on" className="btn">
            It is not about food
          </button>
          <span className="text-sm">
            Nothing is avoided because of it then, whatever is ticked; your name is kept with that.
          </span>
        </div>
      </ActionForm>
    </details>
  );
}

const asOption = (food: string) => ({ value: food, label: food });

function Boxes({
  name,
  legend,
  options,
  ticked,
}: {
  name: string;
  legend: string;
  options: readonly { value: string; label: string }[];
  ticked: readonly string[];
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{legend}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {options.map(({ value, label }) => (
          <label key={value} className="flex items-center gap-2 py-1">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              name={name}
              value={value}
              defaultChecked={ticked.includes(value)}
            />{' '}
            {label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
