import { MODES } from '@/core/plan/mode';
import { Choice, Field } from './field';

interface Person {
  readonly name: string;
  readonly age: number | null;
  readonly servings: number;
  readonly wishes: readonly { readonly asWritten: string }[];
  readonly mode: string | null;
}

/** The fields of one person of a roll. */
export function PersonFields({ person }: { person?: Person }) {
  return (
    <>
      <Field label="Name" name="name" required maxLength={100} defaultValue={person?.name} />
      <div className="grid grid-cols-2 gap-3">
        <Field label="Age" name="age" inputMode="numeric" defaultValue={person?.age ?? ''} />
        <Field label="Servings" name="servings" inputMode="numeric" required defaultValue={person?.servings ?? 1} />
      </div>
      <Field
        label="Avoids"
        name="avoids"
        maxLength={400}
        defaultValue={person?.wishes.map((wish) => wish.asWritten).join('; ')}
        hint="As the family wrote it, separated by semicolons"
      />
      <Choice label="Mode" name="mode" defaultValue={person?.mode ?? ''}>
        <option value="">as the session</option>
        {MODES.map((mode) => (
          <option key={mode}>{mode}</option>
        ))}
      </Choice>
    </>
  );
}
