import { EQUIPMENT, EQUIPMENT_KINDS, type Place } from '@/core/plan/place';
import { Choice, Field } from '@/ui/field';
import { HoursFields, hoursOf } from '@/ui/plan/hours-fields';

/** What a place's form sends, as the service takes it. A weekday without hours is closed; without any it is always open. */
export function placeOf(sent: Record<string, string>) {
  const counted = EQUIPMENT_KINDS.flatMap((kind) => (sent[kind] ? [[kind, sent[kind]] as const] : []));
  return {
    name: sent.name ?? '',
    seats: sent.seats ?? '',
    hours: hoursOf(sent),
    equipment: Object.fromEntries(counted),
    minutesBefore: sent.minutesBefore || '0',
    minutesAfter: sent.minutesAfter || '0',
    shared: sent.shared === 'on',
    outdoor:
      sent.isOutdoor === 'on'
        ? {
            fuel: sent.fuel ?? '',
            waterLitres: sent.waterLitres || '0',
            lightingMinutes: sent.lightingMinutes || '60',
            fallbackPlaceId: sent.fallbackPlaceId ?? '',
            decideHours: sent.decideHours || '24',
          }
        : null,
  };
}

/** The fields of a place, for adding one and for changing one. */
export function PlaceFields({ place, roofs }: { place?: Place; roofs: readonly { id: string; name: string }[] }) {
  return (
    <>
      <Field label="Name" name="name" required maxLength={120} defaultValue={place?.name} />
      <div className="grid grid-cols-3 gap-2">
        <Field label="Seats" name="seats" type="number" min={0} defaultValue={place?.seats ?? ''} />
        <Field
          label="Min. before"
          name="minutesBefore"
          type="number"
          min={0}
          max={600}
          defaultValue={place?.minutesBefore ?? 15}
        />
        <Field
          label="Min. after"
          name="minutesAfter"
          type="number"
          min={0}
          max={600}
          defaultValue={place?.minutesAfter ?? 15}
        />
      </div>
      <label className="flex items-center gap-2 text-sm">
        <input type="checkbox" name="shared" className="checkbox checkbox-sm" defaultChecked={place?.shared} />
        Several classes may be in it at once
      </label>
      <HoursFields legend="Opening hours; all empty: always open" hours={place?.hours ?? []} />
      <details open={place !== undefined && Object.keys(place.equipment).length > 0}>
        <summary className="cursor-pointer text-sm font-semibold">What it holds</summary>
        <div className="mt-2 grid grid-cols-2 gap-2">
          {EQUIPMENT_KINDS.map((kind) => (
            <Field
              key={kind}
              label={`${EQUIPMENT[kind][0]?.toUpperCase()}${EQUIPMENT[kind].slice(1)}`}
              name={kind}
              type="number"
              min={0}
              max={9999}
              defaultValue={place?.equipment[kind] ?? ''}
            />
          ))}
        </div>
      </details>
      <details open={place?.outdoor !== null && place !== undefined}>
        <summary className="cursor-pointer text-sm font-semibold">Outdoors, over a fire</summary>
        <div className="mt-2 flex flex-col gap-2">
          <label className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              name="isOutdoor"
              className="checkbox checkbox-sm"
              defaultChecked={Boolean(place?.outdoor)}
            />
            This place is outdoors
          </label>
          <Field label="Fuel" name="fuel" maxLength={120} defaultValue={place?.outdoor?.fuel} />
          <div className="grid grid-cols-3 gap-2">
            <Field
              label="Water, litres"
              name="waterLitres"
              type="number"
              min={0}
              defaultValue={place?.outdoor?.waterLitres ?? ''}
            />
            <Field
              label="Lit before, min."
              name="lightingMinutes"
              type="number"
              min={0}
              max={600}
              defaultValue={place?.outdoor?.lightingMinutes ?? 60}
            />
            <Field
              label="Decided, hours"
              name="decideHours"
              type="number"
              min={0}
              max={240}
              defaultValue={place?.outdoor?.decideHours ?? 24}
            />
          </div>
          <Choice label="In bad weather" name="fallbackPlaceId" defaultValue={place?.outdoor?.fallbackPlaceId ?? ''}>
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
