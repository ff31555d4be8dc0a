import { parseAmount } from '@/core/quantity/amount';
import { sayAmount } from '@/core/quantity/say';
import { readUnit } from '@/core/quantity/units';
import type { WrittenItem, WrittenLine } from '@/core/recipes/recipe';

const say = (item: WrittenItem) =>
  `${sayAmount(parseAmount(item.amount), readUnit(item.unit))} ${item.ingredient}${item.preparation ? `, ${item.preparation}` : ''}`;

/** What is special about a line: how it scales, how it is measured, bought and labelled. */
function notes(item: WrittenItem): string[] {
  return [
    item.scaling && item.scaling !== 'linear'
      ? `scales ${item.scaling}${item.batch_servings ? ` of ${item.batch_servings}` : ''}`
      : '',
    item.precision && item.precision !== 'normal'
      ? `measured ${item.precision === 'tight' ? 'tightly' : 'loosely'}`
      : '',
    item.sealed_grams ? `sealed units of ${item.sealed_grams} g` : '',
    item.yield_preparation ? `bought to be ${item.yield_preparation}` : '',
    item.spare ? `${item.spare} spare` : '',
    item.pack_grams ? `packs of ${item.pack_grams} g` : '',
    item.label ? `label recorded: ${item.label.length > 0 ? item.label.join(', ') : 'names no allergen'}` : '',
  ].filter(Boolean);
}

/** A recipe's lines as they were understood, with their alternatives. */
export function RecipeLines({ lines }: { lines: readonly WrittenLine[] }) {
  return (
    <ol className="flex flex-col divide-y divide-base-300">
      {lines.map((line, index) => (
        <li key={index} className="py-2">
          <span className="font-semibold">{say(line)}</span>
          {notes(line).length > 0 && (
            <span className="block text-sm text-base-content/80">{notes(line).join(' · ')}</span>
          )}
          {line.alternatives?.map((alternative) => (
            <span key={'omit' in alternative ? 'omit' : say(alternative)} className="block pl-4 text-sm">
              or, where it must be avoided: {'omit' in alternative ? 'leave it out' : say(alternative)}
            </span>
          ))}
        </li>
      ))}
    </ol>
  );
}
