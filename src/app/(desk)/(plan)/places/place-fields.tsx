import { saying } from '@/app/saying';
import { EQUIPMENT, EQUIPMENT_KINDS, type Place } from '@/core/plan/place';
import type { InputOf } from '@/services/gate/gate';
import type { addPlace } from '@/services/plan/places';
import { Choice, Field, Tick } from '@/ui/form/field';
import { namesOf } from '@/ui/form/names';
import { HoursFields } from '@/ui/plan/hours-fields';

const place = namesOf<InputOf<typeof addPlace>>();

/** The box that makes a place an outdoor one. */
export const IS_OUTDOOR = 'isOutdoor';

/** The fields of a place, for adding one and for changing one. */
export async function PlaceFields({ of, roofs }: { of?: Place; roofs: readonly { id: string; name: string }[] }) {
  const { week } = await saying();
  const minutes = { type: 'number', min: 0, max: 600, required: true };
  return (
    <>
      <Field label="Name" name={place('name')} required maxLength={120} defaultValue={of?.name} />
      <div className="grid grid-cols-3 gap-2">
        <Field label="Seats" name={place('seats')} type="number" min={0} defaultValue={of?.seats ?? ''} />
        <Field label="Min. before" name={place('minutesBefore')} {...minutes} defaultValue={of?.minutesBefore ?? 15} />
        <Field label="Min. after" name={place('minutesAfter')} {...minutes} defaultValue={of?.minutesAfter ?? 15} />
      </div>
      <Tick label="Several classes may be in it at once" name={place('shared')} defaultChecked={of?.shared} />
      <HoursFields
        legend="Opening hours; all empty: always open"
        name={place('hours')}
        hours={of?.hours ?? []}
        week={week}
      />
      <details open={of !== undefined && Object.keys(of.equipment).length > 0}>
        <summary className="cursor-pointer text-sm font-semibold">What it holds</summary>
        <div className="mt-2 grid grid-cols-2 gap-2">
          {EQUIPMENT_KINDS.map((kind) => (
            <Field
              key={kind}
              label={`${EQUIPMENT[kind][0]?.toUpperCase()}${EQUIPMENT[kind].slice(1)}`}
              name={place(`equipment.${kind}`)}
              type="number"
              min={0}
              max={9999}
              defaultValue={of?.equipment[kind] ?? ''}
            />
          ))}
        </div>
      </details>
      <details open={Boolean(of?.outdoor)}>
        <summary className="cursor-pointer text-sm font-semibold">Outdoors, over a fire</summary>
        <div className="mt-2 flex flex-col gap-2">
          <Tick label="This place is outdoors" name={IS_OUTDOOR} defaultChecked={Boolean(of?.outdoor)} />
          <Field label="Fuel" name={place('outdoor.fuel')} maxLength={120} defaultValue={of?.outdoor?.fuel} />
          <div className="grid grid-cols-3 gap-2">
            <Field
              label="Water, litres"
              name={place('outdoor.waterLitres')}
              type="number"
              min={0}
              defaultValue={of?.outdoor?.waterLitres ?? 0}
            />
            <Field
              label="Lit before, min."
              name={place('outdoor.lightingMinutes')}
              type="number"
              min={0}
              max={600}
              defaultValue={of?.outdoor?.lightingMinutes ?? 60}
            />
            <Field
              label="Decided, hours"
              name={place('outdoor.decideHours')}
              type="number"
              min={0}
              max={240}
              defaultValue={of?.outdoor?.decideHours ?? 24}
            />
          </div>
          <Choice
            label="In bad weather"
            name={place('outdoor.fallbackPlaceId')}
            defaultValue={of?.outdoor?.fallbackPlaceId ?? ''}
          >
            <option value="">no fallback yet</option>
            {roofs.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Choice>
        </div>
      </details>
    </>
  );
}
