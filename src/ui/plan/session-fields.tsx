import { MODE_SAYS, MODES } from '@/core/plan/mode';
import { DateField, TimeField } from '../form/dates';
import { Choice, Field } from '../form/field';

/** The fields of a session, for adding one and for changing one. */
export function SessionFields({
  session,
  places,
  teachers,
}: {
  session?: {
    title: string;
    date: string;
    startsAt: string;
    minutes: number;
    place: string;
    mode: string;
    instructorId: string | null;
    cookBy: string | null;
  };
  places: readonly string[];
  teachers: readonly { id: string; name: string }[];
}) {
  return (
    <>
      <Field label="Title" name="title" required maxLength={120} defaultValue={session?.title} />
      <div className="grid grid-cols-2 gap-3">
        <DateField label="Date" name="date" required defaultValue={session?.date} width="col-span-2" />
        <TimeField label="Starts" name="startsAt" required defaultValue={session?.startsAt ?? '16:00'} />
        <Field
          label="Minutes"
          name="minutes"
          type="number"
          min={15}
          max={720}
          required
          defaultValue={session?.minutes ?? 90}
        />
      </div>
      <Field label="Place" name="place" required maxLength={120} list="places" defaultValue={session?.place} />
      <datalist id="places">
        {places.map((place) => (
          <option key={place} value={place} />
        ))}
      </datalist>
      <Choice label="Mode" name="mode" defaultValue={session?.mode ?? 'in person'}>
        {MODES.map((mode) => (
          <option key={mode} value={mode}>
            {mode}: {MODE_SAYS[mode]}
          </option>
        ))}
      </Choice>
      <div className="grid grid-cols-2 gap-3">
        <Choice label="Instructor" name="instructorId" defaultValue={session?.instructorId ?? ''}>
          <option value="">the course’s</option>
          {teachers.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
        <DateField
          label="Families cook by"
          name="cookBy"
          defaultValue={session?.cookBy ?? ''}
          hint="When the kit follows the lesson"
        />
      </div>
    </>
  );
}
