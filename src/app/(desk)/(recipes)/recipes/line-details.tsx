'use client';

import type { Precision } from '@/core/quantity/measure';
import { type DraftAlternative, LEAVE_OUT, type LineDetails } from '@/core/recipes/reading/line-details';
import { SWAP_REASONS } from '@/core/recipes/recipe/recipe';
import { SCALING_SAID } from '@/core/recipes/recipe/say-item';
import { Field } from '@/ui/form/field';

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
  /** The alternative at a place with other words, or with other things said of it. */
  const swap = (place: number, given: Partial<DraftAlternative>) =>
    change({
      alternatives: [...alternatives, { text: '' }]
        .map((each, index) => {
          if (index !== place) return each;
          // In other words it is read anew.
          const { settled, ...rest } = each;
          return given.text === undefined ? { ...each, ...given } : { ...rest, ...given };
        })
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
            {Object.entries(SCALING_SAID).map(([each, said]) => (
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
        {text('A whole pack, grams', 'sealed_grams', 'a can or sachet that goes whole; empty when poured from a pool')}
        {text('Bought in packs of, grams', 'pack_grams', 'empty when bought loose')}
        {text('Spare', 'spare', 'a part such as 1/10, for what is spoiled')}
        {text('Trimmed to', 'yield_preparation', 'as the reference table calls it: peeled, hulled')}
        <fieldset className="flex flex-col gap-1 sm:col-span-2">
          <legend className="mb-1 font-semibold">Where it must be avoided, the first of these that is safe</legend>
          {[...alternatives, { text: '' }].map((each, index) => (
            <span key={`${index} ${each.text}`} className="flex flex-wrap gap-2">
              <input
                className="input input-sm min-w-48 flex-1"
                aria-label={`Alternative ${index + 1} of line ${number}`}
                defaultValue={each.text}
                maxLength={200}
                placeholder={`3/4 cup soy milk; what it brings along behind a semicolon; or “${LEAVE_OUT}”`}
                onBlur={(event) =>
                  event.target.value.trim() !== each.text && swap(index, { text: event.target.value.trim() })
                }
              />
              {each.text !== '' && each.text !== LEAVE_OUT && (
                <SwapFields
                  of={`alternative ${index + 1} of line ${number}`}
                  swap={each}
                  change={(given) => swap(index, given)}
                />
              )}
            </span>
          ))}
        </fieldset>
      </div>
    </details>
  );
}

/** Why something stands in, and how cooking differs with it. */
function SwapFields({
  of,
  swap,
  change,
}: {
  of: string;
  swap: DraftAlternative;
  change: (given: Pick<DraftAlternative, 'reason' | 'step' | 'minutes'>) => void;
}) {
  return (
    <>
      <select
        className="select select-sm w-40"
        aria-label={`Reason for ${of}`}
        value={swap.reason ?? ''}
        onChange={(event) =>
          change({ reason: SWAP_REASONS.find((reason) => reason === event.target.value) ?? 'allergy or diet' })
        }
      >
        <option value="" disabled>
          for any reason
        </option>
        {SWAP_REASONS.map((reason) => (
          <option key={reason}>{reason}</option>
        ))}
      </select>
      <input
        className="input input-sm min-w-40 flex-1"
        aria-label={`How the steps differ with ${of}`}
        placeholder="how the steps differ with it"
        maxLength={500}
        defaultValue={swap.step ?? ''}
        onBlur={(event) =>
          event.target.value.trim() !== (swap.step ?? '') && change({ step: event.target.value.trim() })
        }
      />
      <input
        className="input input-sm w-28"
        type="number"
        min={-240}
        max={240}
        aria-label={`Minutes longer with ${of}`}
        placeholder="min longer"
        defaultValue={swap.minutes ?? ''}
        onBlur={(event) => {
          const minutes = Math.round(Number(event.target.value)) || 0;
          if (minutes !== (swap.minutes ?? 0)) change({ minutes });
        }}
      />
    </>
  );
}
