import type { FoodOfKind } from '@/core/recipes/reading/draft';
import { AISLE_TITLES, AISLES, KEPT, MEASURES, PERISHABLES, STORAGES } from '@/core/reference/food-words';
import { AVOIDANCES } from '@/core/safety/avoidances';
import { Choice, Field } from '../form/field';

/** The fields of a food that is not in the reference table yet. */
export function FoodFields({ name, like }: { name?: string; like?: FoodOfKind | undefined }) {
  return (
    <>
      {like && (
        <p className="text-sm">
          Shelf and days as for <b>{like.name}</b>: look them over. What it holds is taken from nothing: read its label.
        </p>
      )}
      <input type="hidden" name="plateGroup" value={like?.plateGroup ?? 'other'} />
      <input type="hidden" name="vegetableFamily" value={like?.vegetableFamily ?? ''} />
      <Field
        label="Name"
        name="name"
        required
        maxLength={60}
        defaultValue={name}
        hint="As a cook says it, for one: chickpea"
      />
      {/* Not “contains”: a field of that name would hide the form's own method of that name. */}
      <Boxes name="allergens" legend="Contains" kind="allergen" />
      <Boxes name="diet" legend="Also holds" kind="diet" />
      <label className="flex items-start gap-2 text-sm">
        <input type="checkbox" name="labelRead" className="checkbox checkbox-sm mt-0.5" />
        <span>
          I read the label, or it is a plain food. Otherwise everything else counts as “may contain”, and blocks kits,
          until a label is recorded.
        </span>
      </label>
      <div className="grid grid-cols-2 gap-2">
        <Choice label="Aisle" name="aisle" defaultValue={like?.aisle ?? 'dry'}>
          {AISLES.map((aisle) => (
            <option key={aisle} value={aisle}>
              {AISLE_TITLES[aisle]}
            </option>
          ))}
        </Choice>
        <Choice label="Kept" name="storage" defaultValue={like?.storage ?? 'ambient'}>
          {STORAGES.map((storage) => (
            <option key={storage} value={storage}>
              in the {KEPT[storage]}
            </option>
          ))}
        </Choice>
        <Field
          label="Keeps, days"
          name="daysWhole"
          type="number"
          min={0}
          max={3650}
          required
          hint="as bought"
          defaultValue={like?.daysWhole}
        />
        <Field
          label="Once opened, days"
          name="daysOpened"
          type="number"
          min={0}
          max={3650}
          required
          defaultValue={like?.daysOpened}
        />
        <Choice label="Goes off" name="perishable" defaultValue={like?.perishable ?? 'never'}>
          {PERISHABLES.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </Choice>
        <span />
        <Field label="Grams" name="grams" inputMode="decimal" hint="empty: only ever weighed" />
        <Choice label="in one" name="measure" defaultValue="cup">
          {MEASURES.map((measure) => (
            <option key={measure}>{measure}</option>
          ))}
        </Choice>
      </div>
    </>
  );
}

function Boxes({ name, legend, kind }: { name: string; legend: string; kind: 'allergen' | 'diet' }) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{legend}</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
        {AVOIDANCES.filter((each) => each.kind === kind).map(({ code, label }) => (
          <label key={code} className="flex items-center gap-1.5 py-0.5">
            <input type="checkbox" className="checkbox checkbox-sm" name={name} value={code} /> {label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
