import { ADULT, HEATS, type PlannedStep, TOOLS } from '@/core/recipes/steps/step-plan';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

/** Settles how a step is planned, or has it read from its words again. */
export function StepForm({
  steps,
  at,
  action,
  reset,
}: {
  steps: readonly PlannedStep[];
  at: number;
  action: (state: FormState | null, data: FormData) => Promise<FormState>;
  reset: (() => Promise<FormState>) | undefined;
}) {
  const step = steps[at] as PlannedStep;
  return (
    <>
      <ActionForm action={action} label={`Step ${at + 1}`} className="mt-3 grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        <Field
          label="Minutes by hand"
          name="handsOn"
          type="number"
          min={0}
          max={2880}
          required
          defaultValue={step.handsOn}
        />
        <Field
          label="Then minutes alone"
          name="handsOff"
          type="number"
          min={0}
          max={2880}
          required
          defaultValue={step.handsOff}
        />
        <Choice label="Over or in" name="heat" defaultValue={step.heat}>
          {HEATS.map((heat) => (
            <option key={heat}>{heat}</option>
          ))}
        </Choice>
        <Field
          label="From age"
          name="fromAge"
          type="number"
          min={0}
          max={ADULT}
          required
          defaultValue={step.fromAge}
          hint={`${ADULT}: an adult`}
        />
        <Field
          label="May wait, minutes"
          name="mayWait"
          type="number"
          min={0}
          max={2880}
          defaultValue={step.mayWait ?? ''}
          hint="empty: it keeps"
        />
        <Field
          label="Holds at once, servings"
          name="batchServings"
          type="number"
          min={1}
          max={500}
          defaultValue={step.batchServings ?? ''}
          hint="a pan, tray or blender; empty: any"
        />
        <Field label="Done when" name="done" maxLength={120} defaultValue={step.done} />
        <Field
          label="Uses up"
          name="consumables"
          maxLength={200}
          defaultValue={step.consumables.join(', ')}
          hint="foil, paper, gloves …"
        />
        <div className="flex flex-col justify-center gap-1 text-sm">
          <label className="flex items-center gap-2">
            <input type="checkbox" name="ahead" className="checkbox checkbox-sm" defaultChecked={step.ahead} /> Before
            the class
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              name="lastMinute"
              className="checkbox checkbox-sm"
              defaultChecked={step.lastMinute}
            />{' '}
            At the last minute
          </label>
        </div>
        <fieldset className="text-sm sm:col-span-2">
          <legend className="mb-1 font-semibold">After these steps</legend>
          <span className="flex flex-wrap gap-x-4 gap-y-1">
            {steps.map(
              (other, place) =>
                place !== at && (
                  <label key={other.text} className="flex items-center gap-1.5" title={other.text}>
                    <input
                      type="checkbox"
                      name="after"
                      value={place}
                      className="checkbox checkbox-sm"
                      defaultChecked={step.after.includes(place)}
                    />
                    {place + 1}
                  </label>
                ),
            )}
          </span>
        </fieldset>
        <fieldset className="text-sm sm:col-span-2">
          <legend className="mb-1 font-semibold">Tools</legend>
          <span className="flex flex-wrap gap-x-4 gap-y-1">
            {TOOLS.map((tool) => (
              <label key={tool} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  name="tools"
                  value={tool}
                  className="checkbox checkbox-sm"
                  defaultChecked={step.tools.includes(tool)}
                />
                {tool}
              </label>
            ))}
          </span>
        </fieldset>
        <button type="submit" className="btn btn-primary w-fit">
          Settle step {at + 1}
        </button>
      </ActionForm>
      {reset && (
        <ActionForm action={reset} label={`Read step ${at + 1} again`} className="mt-2">
          <button type="submit" className="btn btn-sm">
            Read it from its words again
          </button>
        </ActionForm>
      )}
    </>
  );
}
