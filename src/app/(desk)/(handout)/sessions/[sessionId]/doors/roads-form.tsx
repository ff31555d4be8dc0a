import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { setRoads, type viewDoors } from '@/services/handout/doors';
import { ActionForm } from '@/ui/form/action-form';
import { Field, TextArea } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

type Seen = Awaited<ReturnType<typeof viewDoors>>;

async function keepRoads(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setRoads, async () => {
    const { kitchen = '', known = '', speed = '', factor = '', handing = '', kitLitres = '' } = fields(data);
    await call(setRoads, { version, kitchen, known, speed, factor, handing, kitLitres });
    return 'Kept.';
  });
}

/** Where the kitchen is, how quickly one drives from there, and what is known better than a straight line. */
export function RoadsForm({
  roads,
  usualRoads,
  programmeVersion,
}: Pick<Seen, 'roads' | 'usualRoads' | 'programmeVersion'>) {
  return (
    <details className="no-print sheet p-5" open={!roads}>
      <summary className="cursor-pointer text-xl font-bold">How one drives here</summary>
      <ActionForm
        action={keepRoads.bind(null, programmeVersion)}
        label="How one drives here"
        className="mt-3 flex max-w-2xl flex-col gap-3"
      >
        <Field
          label="Where the kitchen is"
          name="kitchen"
          defaultValue={roads?.kitchen.join(', ') ?? ''}
          hint="As 44.1032, -68.3341: the latitude first. A phone’s map shows it when one holds a finger on a place."
          required
        />
        <div className="flex flex-wrap gap-3">
          <Field label="Kilometres an hour" name="speed" width="w-32" defaultValue={roads?.speed ?? usualRoads.speed} />
          <Field
            label="Roads longer than straight, times"
            name="factor"
            width="w-40"
            defaultValue={roads?.factor ?? usualRoads.factor}
          />
          <Field
            label="Minutes at a door"
            name="handing"
            width="w-32"
            defaultValue={roads?.handing ?? usualRoads.handing}
          />
          <Field
            label="Litres of a kit"
            name="kitLitres"
            width="w-32"
            defaultValue={roads?.kitLitres ?? usualRoads.kitLitres}
          />
        </div>
        <TextArea
          label="Ways that you know better, one a line"
          name="known"
          rows={3}
          defaultValue={roads?.known.map(({ from, to, minutes }) => `${from}; ${to}; ${minutes}`).join('\n') ?? ''}
          hint="Two families, or “kitchen”, and the minutes between: kitchen; Household Bracken; 12"
        />
        <button type="submit" className="btn w-fit">
          Keep
        </button>
      </ActionForm>
    </details>
  );
}
