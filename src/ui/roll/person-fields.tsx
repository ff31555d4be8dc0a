import { MODES } from '@/core/plan/mode';
import { Choice, Field } from '../form/field';

interface Person {
  readonly name: string;
  readonly age: number | null;
  readonly servings: number;
  readonly written: readonly string[];
  readonly mode: string | null;
  readonly actionPlan: string;
  readonly groupId: string | null;
}

interface Group {
  readonly id: string;
  readonly name: string;
}

/** How a family is reached. */
export interface Reach {
  readonly contact: string;
  readonly address: string;
}

const UNKNOWN: Reach = { contact: '', address: '' };

interface Props {
  readonly person?: Person;
  /** Those of the course, where there are several. */
  readonly groups: readonly Group[];
  readonly reach?: Reach;
}

/** The fields of one person of a roll. */
export function PersonFields({ person, groups, reach = UNKNOWN }: Props) {
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
        defaultValue={person?.written.join('; ')}
        hint="As the family wrote it, separated by semicolons"
      />
      <Choice label="Mode" name="mode" defaultValue={person?.mode ?? ''}>
        <option value="">as the session</option>
        {MODES.map((mode) => (
          <option key={mode}>{mode}</option>
        ))}
      </Choice>
      {groups.length > 0 && (
        <Choice
          label="Group"
          name="group"
          defaultValue={(groups.find(({ id }) => id === person?.groupId) ?? groups[0])?.name}
        >
          {groups.map(({ id, name }) => (
            <option key={id}>{name}</option>
          ))}
        </Choice>
      )}
      <label className="flex flex-col gap-1">
        <span className="text-sm font-semibold">Family’s action plan</span>
        <textarea name="plan" rows={3} maxLength={2000} className="textarea w-full" defaultValue={person?.actionPlan} />
        <span className="text-xs text-base-content/75">What to do when something goes wrong. Shown in the room.</span>
      </label>
      {!person && (
        <Field label="Household" name="household" maxLength={100} hint="Empty: the person stands for their own" />
      )}
      <Field
        label="Contact"
        name="contact"
        maxLength={190}
        defaultValue={reach.contact}
        hint={`E-mail or phone; only coordinators see it${person ? '. Of the whole household' : ''}`}
      />
      <Field label="Address" name="address" maxLength={255} defaultValue={reach.address} />
      {/* What was shown: what is left as it is changes nothing that somebody else wrote meanwhile. */}
      <input type="hidden" name="shownContact" value={reach.contact} />
      <input type="hidden" name="shownAddress" value={reach.address} />
    </>
  );
}
