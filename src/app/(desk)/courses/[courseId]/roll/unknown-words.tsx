import { TYPICAL } from '@/core/reference/reference';
import { AVOIDANCES, normaliseWish } from '@/core/safety/avoidances';
import { ActionForm } from '@/ui/action-form';
import { giveWord } from './actions';

/** Words of families that nobody has given a meaning to: they block kits until the coordinator says what they stand for. */
export function UnknownWords({ words }: { words: readonly string[] }) {
  return (
    <section
      className="no-print mb-6 rounded-box border border-error border-l-4 bg-base-100 p-4"
      aria-labelledby="words"
    >
      <h2 id="words" className="text-xl font-bold">
        What do these words mean?
      </h2>
      <p className="mb-2 text-sm">
        They are kept as the family wrote them and block the kit until you say what to avoid. Ask the family when in
        doubt; the meaning then holds for the whole programme.
      </p>
      {words.map((word) => (
        <details key={word} className="border-t border-base-300 py-2">
          <summary className="cursor-pointer py-1 font-bold">“{word}”</summary>
          <ActionForm
            action={giveWord.bind(null, word)}
            label={`Meaning of ${word}`}
            className="mt-2 flex flex-col gap-3"
          >
            <Boxes
              name="codes"
              legend="Stands for"
              options={AVOIDANCES.map(({ code, label }) => ({ value: code, label }))}
            />
            <Boxes
              name="foods"
              legend="Or for single foods"
              options={nearFoods(word).map((food) => ({ value: food, label: food }))}
            />
            <button type="submit" className="btn btn-primary w-fit">
              Give this meaning
            </button>
          </ActionForm>
        </details>
      ))}
    </section>
  );
}

function Boxes({
  name,
  legend,
  options,
}: {
  name: string;
  legend: string;
  options: readonly { value: string; label: string }[];
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{legend}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {options.map(({ value, label }) => (
          <label key={value} className="flex items-center gap-2 py-1">
            <input type="checkbox" className="checkbox checkbox-sm" name={name} value={value} /> {label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Foods that share a word with the wish first, then all others by name. */
function nearFoods(word: string): string[] {
  const stems = normaliseWish(word)
    .split(' ')
    .map((part) => part.replace(/(es|s)$/, ''))
    .filter((part) => part.length > 2);
  const near = (food: string) => (stems.some((stem) => food.includes(stem)) ? 0 : 1);
  return TYPICAL.ingredients.map(({ name }) => name).sort((a, b) => near(a) - near(b) || a.localeCompare(b));
}
