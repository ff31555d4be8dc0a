import type { WrittenItem, WrittenLine, WrittenSwap } from '@/core/recipes/recipe/recipe';
import { SCALING_SAID, sayItem as say, saySealed } from '@/core/recipes/recipe/say-item';

/** What is special about a line: how it scales, how it is measured, bought and labelled. */
function notes(item: WrittenItem): string[] {
  return [
    item.range
      ? `${item.range.least} to ${item.range.most} written, kits use ${item.within ? 'what makes packs come out whole' : item.amount}`
      : '',
    item.reserved ? 'poured off the can, not bought' : '',
    item.scaling && item.scaling !== 'linear'
      ? `grows ${SCALING_SAID[item.scaling]}${item.batch_servings ? ` of ${item.batch_servings}` : ''}`
      : '',
    item.precision && item.precision !== 'normal'
      ? `measured ${item.precision === 'tight' ? 'tightly' : 'loosely'}`
      : '',
    item.sealed_grams ? `whole packs of ${saySealed(item.sealed_grams)}` : '',
    item.yield_preparation ? `bought to be ${item.yield_preparation}` : '',
    item.spare ? `${item.spare} spare` : '',
    item.pack_grams ? `packs of ${saySealed(item.pack_grams)}` : '',
    item.label ? `label recorded: ${item.label.length > 0 ? item.label.join(', ') : 'names no allergen'}` : '',
  ].filter(Boolean);
}

/** What stands in, with what it brings along and how cooking differs with it. */
const saySwap = ({ also = [], reason, step, minutes, ...item }: WrittenSwap) =>
  [
    [item, ...also].map(say).join(' and '),
    reason ? `for ${reason}` : '',
    step ?? '',
    minutes ? `${Math.abs(minutes)} min ${minutes > 0 ? 'longer' : 'shorter'}` : '',
  ]
    .filter(Boolean)
    .join(' · ');

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
          {line.written && <span className="block text-sm text-base-content/80">written “{line.written}”</span>}
          {line.alternatives?.map((alternative) => (
            <span key={'omit' in alternative ? 'omit' : say(alternative)} className="block pl-4 text-sm">
              {line.slot ? 'or, to fill it: ' : 'or, where it must be avoided: '}
              {'omit' in alternative ? 'leave it out' : saySwap(alternative)}
            </span>
          ))}
        </li>
      ))}
    </ol>
  );
}
