'use client';

import type { Precision } from '@/core/quantity/measure';
import { type DraftAlternative, LEAVE_OUT, type LineDetails } from '@/core/recipes/line-details';
import type { Scaling } from '@/core/recipes/recipe';
import { Field } from '@/ui/field';

/** How each way of scaling is told. */
const SCALES: Readonly<Record<Scaling, string>> = {
  linear: 'with the servings',
  whole: 'in whole pieces, up',
  damped: 'less than the servings',
  'per batch': 'by the batch',
  'per kit': 'the same in every kit',
};

const MEASURED: Readonly<Record<Precision, string>> = { tight: 'tightly', normal: 'as usual', loose: 'loosely' };

interface Given {
  readonly details?: LineDetails;
  readonly alternatives?: readonly DraftAlternative[];
}

/** What a line's words do not say: how it scales, is measured and bought, and what may stand in for it. */
export function LineDetailsFields({
  number,
  details,
  alternatives,
  change,
}: {
  number: number;
  details: LineDetails;
  alternatives: readonly DraftAlternative[];
  change: (given: Given) => void;
}) {
  /** An empty field leaves the matter as usual. */
  const set = (name: keyof LineDetails, value: string) => {
    const { [name]: _, ...rest } = details;
    const given = name === 'batch_servings' ? Number(value) : value;
    change({ details: value === '' ? rest : { ...rest, [name]: given } });
  };
  const text = (label: string, name: keyof LineDetails, hint: string) => (
    <Field
      label={label}
      hint={hint}
      maxLength={40}
      defaultValue={details[name] === undefined ? '' : String(details[name])}
      onBlur={(event) =>
        event.target.value.trim() !== String(details[name] ?? '') && set(name, event.target.value.trim())
      }
    />
  );
  const swap = (place: number, value: string) =>
    change({
      alternatives: alternatives
        .map((each, index) => (index === place ? { text: value.trim() } : each))
        .filter((each) => each.text !== ''),
    });
  return (
    <details className="mt-1">
      <summary
        className="cursor-pointer text-sm font-semibold"
        aria-label={`How line ${number} scales, is measured, bought and replaced`}
      >
        Scaling, measuring, buying, replacing
      </summary>
      <div className="mt-2 grid gap-3 rounded-box border border-base-300 p-3 sm:grid-cols-2">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">It grows</span>
          <select
            className="select select-sm w-full"
            value={details.scaling ?? 'linear'}
            onChange={(event) => set('scaling', event.target.value === 'linear' ? '' : event.target.value)}
          >
            {Object.entries(SCALES).map(([each, said]) => (
              <option key={each} value={each}>
                {said}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">It is measured</span>
          <select
            className="select select-sm w-full"
            value={details.precision ?? 'normal'}
            onChange={(event) => set('precision', event.target.value === 'normal' ? '' : event.target.value)}
          >
            {Object.entries(MEASURED).map(([each, said]) => (
              <option key={each} value={each}>
                {said}
              </option>
            ))}
          </select>
        </label>
        {details.scaling === 'damped' && text('Part of the growth it takes', 'damping', 'such as 3/4; as usual 3/4')}
        {details.scaling === 'per batch' &&
          text('Servings in one batch', 'batch_servings', 'what fits one pan or tray')}
        {text('Sealed unit, grams', 'sealed_grams', 'a can or sachet that goes whole; empty when poured from a pool')}
        {text('Bought in packs of, grams', 'pack_grams', 'empty when bought loose')}
        {text('Spare', 'spare', 'a part such as 1/10, for what is spoiled')}
        {text('Trimmed to', 'yield_preparation', 'as the reference table calls it: peeled, hulled')}
        <fieldset className="flex flex-col gap-1 sm:col-span-2">
          <legend className="mb-1 font-semibold">Where it must be avoided, the first of these that is safe</legend>
          {[...alternatives, { text: '' }].map((each, index) => (
            <input
              key={`${index} ${each.text}`}
              className="input input-sm w-full"
              aria-label={`Alternative ${index + 1} of line ${number}`}
              defaultValue={each.text}
              maxLength={200}
              placeholder={`3/4 cup soy milk; or “${LEAVE_OUT}”`}
              onBlur={(event) => event.target.value.trim() !== each.text && swap(index, event.target.value)}
            />
          ))}
        </fieldset>
      </div>
    </details>
  );
}
