import { DATE_KINDS, ORIGINS, STORAGES } from '@/core/buying/stock';
import type { addLot } from '@/services/buying/stock';
import type { InputOf } from '@/services/gate/gate';
import { LabelTicks } from '@/ui/buying/label-ticks';
import { DateField } from '@/ui/form/dates';
import { Choice, Field, Tick } from '@/ui/form/field';
import { namesOf } from '@/ui/form/names';

const lot = namesOf<InputOf<typeof addLot>>();

interface Props {
  /** Made with the page: sent twice, it is put there once. */
  readonly id: string;
  readonly foods: readonly string[];
  readonly places: readonly { readonly id: string; readonly name: string }[];
  readonly isGift?: boolean;
}

/** The fields of something that comes onto a shelf. */
export function LotFields({ id, foods, places, isGift = false }: Props) {
  return (
    <>
      <input type="hidden" name={lot('id')} value={id} />
      <Field label="Food" name={lot('ingredient')} required list="foods" autoComplete="off" />
      <datalist id="foods">
        {foods.map((food) => (
          <option key={food} value={food} />
        ))}
      </datalist>
      <Field label="As its pack calls it" name={lot('name')} maxLength={120} />
      <div className="grid grid-cols-3 gap-2">
        <Field label="Packs" name={lot('packs')} type="number" min={0} defaultValue={1} />
        <Field label="Grams each" name={lot('packGrams')} type="number" min={1} />
        <Field label="Loose, g" name={lot('grams')} type="number" min={0} defaultValue={0} />
      </div>
      <div className="grid grid-cols-2 gap-2">
        <DateField label="Last day" name={lot('lastDay')} required />
        <Choice label="That day is" name={lot('lastKind')} defaultValue="best before">
          {DATE_KINDS.map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </Choice>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <Choice label="Where" name={lot('storage')}>
          {STORAGES.map((storage) => (
            <option key={storage}>{storage}</option>
          ))}
        </Choice>
        <Choice label="At" name={lot('placeId')}>
          <option value="">no place</option>
          {places.map((place) => (
            <option key={place.id} value={place.id}>
              {place.name}
            </option>
          ))}
        </Choice>
      </div>
      {isGift ? (
        <input type="hidden" name={lot('origin')} value="given" />
      ) : (
        <Choice label="It was" name={lot('origin')} defaultValue="left over">
          {ORIGINS.map((origin) => (
            <option key={origin}>{origin}</option>
          ))}
        </Choice>
      )}
      <details open={isGift}>
        <summary className="cursor-pointer text-sm font-semibold">Its label</summary>
        <div className="mt-2 flex flex-col gap-1">
          <Tick label="I read the label; it names only what is ticked here" name={lot('labelRead')} />
          <LabelTicks />
        </div>
      </details>
    </>
  );
}
