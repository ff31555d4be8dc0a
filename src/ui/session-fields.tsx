import { MODES } from '@/core/plan/mode';
import { Choice, Field } from './field';

/** The fields of a session, for adding one and for changing one. */
export function SessionFields({
  session,
}: {
  session?: { title: string; date: string; startsAt: string; minutes: number; place: string; mode: string };
}) {
  return (
    <>
      <Field label="Title" name="title" required maxLength={120} defaultValue={session?.title} />
      <div className="grid grid-cols-[1.3fr_1fr_1fr] gap-3">
        <Field label="Date" name="date" type="date" required defaultValue={session?.date} />
        <Field label="Starts" name="startsAt" type="time" required defaultValue={session?.startsAt ?? '16:00'} />
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
      <Field label="Place" name="place" required maxLength={120} defaultValue={session?.place} />
      <Choice label="Mode" name="mode" defaultValue={session?.mode ?? 'in person'}>
        {MODES.map((mode) => (
          <option key={mode}>{mode}</option>
        ))}
      </Choice>
    </>
  );
}
