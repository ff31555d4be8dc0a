import Link from 'next/link';
import { call } from '@/app/access';
import { saying } from '@/app/saying';
import { labelsThatWouldHelp } from '@/core/kits/record/label-would-help';
import type { SheetContent, SheetVariant } from '@/core/kits/record/sheet-content';
import { type Ingredient, readIngredient } from '@/core/reference/reference';
import { avoidanceLabel, namedOn } from '@/core/safety/avoidances';
import { labelMark } from '@/services/kits/kit-sheet';
import { listProducts } from '@/services/recipes/products';
import { ActionForm } from '@/ui/form/action-form';
import { LabelBoxes } from '@/ui/kits/label-boxes';
import { leaveKitOut, putKitBack, saveLabel, takeLabelBack } from './actions';

interface Props {
  readonly sessionId: string;
  readonly courseId: string;
  readonly draft: SheetContent;
  readonly leftOut: readonly { enrolmentId: string; name: string; reason: string }[];
  readonly labels: readonly { ingredient: string; product: string; allergens: readonly string[] }[];
}

/** What stands between the sheet and its lock: refused kits with what would resolve each, and what was resolved so far. */
export async function Refused({ sessionId, courseId, draft, leftOut, labels }: Props) {
  const say = await saying();
  const refused = draft.variants.filter((variant) => !variant.components);
  const brandOnly = labelsThatWouldHelp(draft);
  const known = await Promise.all(
    brandOnly.map(async (ingredient) => {
      const recorded = labels.find((label) => label.ingredient === ingredient);
      const shown = recorded ? labelMark(recorded) : '';
      return { ingredient, shown, ...(await call(listProducts, { ingredient })) };
    }),
  );
  return (
    <section
      className={`no-print rounded-box border border-l-4 bg-base-100 p-4 ${refused.length > 0 ? 'border-error' : 'border-base-300'}`}
      aria-labelledby="refused"
    >
      <h2 id="refused" className="text-xl font-bold">
        {refused.length > 0
          ? `${draft.refusedKits} ${draft.refusedKits === 1 ? 'kit' : 'kits'} cannot be made safely yet`
          : 'Settled for this session'}
      </h2>
      <ul className="mt-2 flex flex-col divide-y divide-base-300">
        {refused.map((variant) => (
          <RefusedVariant key={variant.key} variant={variant} draft={draft} sessionId={sessionId} courseId={courseId} />
        ))}
      </ul>
      {brandOnly.length > 0 && (
        <div className="mt-3 flex flex-col gap-2 border-t border-base-300 pt-3">
          <h3 className="font-bold">Have the pack in hand? Record its label</h3>
          <p className="text-sm">
            A recorded label says what this product contains, in place of what brands may add. Read it off the pack
            itself.
          </p>
          {known.map(({ ingredient, shown, products }) => (
            <LabelForm
              key={ingredient}
              sessionId={sessionId}
              food={readIngredient(draft.input.reference, ingredient)}
              shown={shown}
            >
              {products.map(
                ({ id, name, allergens, readAt }) =>
                  allergens &&
                  readAt && (
                    <ActionForm
                      key={id}
                      action={saveLabel.bind(null, sessionId, ingredient, shown)}
                      label={`Label of ${name}`}
                      className="flex flex-wrap items-center gap-2"
                    >
                      <input type="hidden" name="product" value={name} />
                      {allergens.map((code) => (
                        <input key={code} type="hidden" name="allergens" value={code} />
                      ))}
                      <button type="submit" className="btn btn-sm">
                        Use the label of {name}
                      </button>
                      <span className="text-sm">
                        read {say.moment(readAt.toISOString())}, {sayAllergens(allergens)}
                      </span>
                    </ActionForm>
                  ),
              )}
            </LabelForm>
          ))}
        </div>
      )}
      {(labels.length > 0 || leftOut.length > 0) && (
        <ul className="mt-3 flex flex-col gap-1 border-t border-base-300 pt-3 text-sm">
          {labels.map(({ ingredient, product, allergens }) => (
            <li key={ingredient} className="flex items-center gap-3">
              <span>
                <b>{ingredient}</b>: label of “{product}” recorded, {sayAllergens(allergens)}
              </span>
              <ActionForm
                action={takeLabelBack.bind(null, sessionId, ingredient, labelMark({ product, allergens }))}
                label={`Take back the label of ${ingredient}`}
              >
                <button type="submit" className="btn btn-xs" aria-label={`Take back the label of ${ingredient}`}>
                  Take back
                </button>
              </ActionForm>
            </li>
          ))}
          {leftOut.map(({ enrolmentId, name, reason }) => (
            <li key={enrolmentId} className="flex items-center gap-3">
              <span>
                <b>{name}</b> gets no kit: {reason}
              </span>
              <form action={putKitBack.bind(null, sessionId, enrolmentId)}>
                <button type="submit" className="btn btn-xs" aria-label={`Put the kit of ${name} back`}>
                  Put back
                </button>
              </form>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const sayAllergens = (codes: readonly string[]) => {
  const named = namedOn(codes);
  const without = codes.filter((code) => !named.includes(code));
  return [
    named.length > 0 ? `contains ${named.map(avoidanceLabel).join(', ')}` : 'names no allergen',
    ...without.map(avoidanceLabel),
  ].join(', ');
};

function RefusedVariant({
  variant,
  draft,
  sessionId,
  courseId,
}: {
  variant: SheetVariant;
  draft: SheetContent;
  sessionId: string;
  courseId: string;
}) {
  return (
    <li className="py-2">
      <p>
        <b>{variant.participants.map((person) => person.name).join(', ')}</b> ({variant.servings}{' '}
        {variant.servings === 1 ? 'serving' : 'servings'}):{' '}
        {variant.unknownWishes.map((need) => `“${need}” has no meaning yet`).join('; ')}
        {variant.unknownWishes.length > 0 && variant.refusals.length > 0 && '; '}
        {variant.refusals
          .map(
            ({ row, ingredient, blockedBy }) =>
              `${ingredient} in ${draft.input.dishes[draft.rows[row]?.dish ?? -1]?.title} holds or may hold ${blockedBy.join(', ')}, and no alternative is safe`,
          )
          .join('; ')}
        .
      </p>
      <div className="mt-1 flex flex-wrap items-start gap-2">
        {variant.unknownWishes.length > 0 && (
          <Link href={`/courses/${courseId}/roll?session=${sessionId}#words`} className="btn btn-sm">
            Say what it means
          </Link>
        )}
        {variant.refusals.length > 0 && (
          <Link href={`/sessions/${sessionId}#dishes`} className="btn btn-sm">
            Choose another dish
          </Link>
        )}
        {variant.participants.map((person) => (
          <details key={person.id} className="rounded-field border border-base-300 px-3 py-1">
            <summary className="cursor-pointer text-sm font-semibold">Leave {person.name} out</summary>
            <ActionForm
              action={leaveKitOut.bind(null, sessionId, person.id)}
              label={`Leave ${person.name} out`}
              className="flex flex-wrap items-end gap-2 py-2"
            >
              <label className="flex flex-col gap-1">
                <span className="text-sm">Reason, and what was arranged instead</span>
                <input
                  name="reason"
                  required
                  minLength={3}
                  maxLength={255}
                  className="input input-sm w-80 max-w-full"
                />
              </label>
              <button type="submit" className="btn btn-sm btn-primary">
                Leave out of this session
              </button>
            </ActionForm>
          </details>
        ))}
      </div>
    </li>
  );
}

function LabelForm({
  sessionId,
  food,
  shown,
  children,
}: {
  sessionId: string;
  food: Ingredient;
  /** The label that is recorded now, as its mark: '' for none. */
  shown: string;
  children: React.ReactNode;
}) {
  const ingredient = food.name;
  return (
    <details className="rounded-field border border-base-300 px-3 py-1">
      <summary className="cursor-pointer py-1 font-semibold">Label of the {ingredient}</summary>
      {children}
      <ActionForm
        action={saveLabel.bind(null, sessionId, ingredient, shown)}
        label={`Label of the ${ingredient}`}
        className="flex flex-col gap-2 py-2"
      >
        <label className="flex flex-col gap-1">
          <span className="text-sm">Product, as its pack names it</span>
          <input name="product" required maxLength={120} className="input input-sm w-80 max-w-full" />
        </label>
        <LabelBoxes food={food} />
        <button type="submit" className="btn btn-sm btn-primary w-fit">
          Record label
        </button>
      </ActionForm>
    </details>
  );
}
