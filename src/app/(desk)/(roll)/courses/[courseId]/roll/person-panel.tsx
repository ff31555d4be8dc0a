import Link from 'next/link';
import type { RollCells } from '@/core/roll/roll-row';
import type { RollPerson } from '@/services/sheet/person';
import { ActionForm } from '@/ui/form/action-form';
import { Choice } from '@/ui/form/field';
import { PersonFields } from '@/ui/roll/person-fields';
import { add, edit, oneKit } from './actions';

type Groups = readonly { readonly id: string; readonly name: string }[];

/** Adds a person to the roll. */
export function AddPerson({ courseId, groups }: { courseId: string; groups: Groups }) {
  return (
    <>
      <h2 id="person-form" className="mb-3 text-xl font-bold">
        Add a person
      </h2>
      <ActionForm action={add.bind(null, courseId)} label="Add a person" clear className="flex flex-col gap-3">
        <PersonFields groups={groups} />
        <Choice label="Comes as" name="status" defaultValue="enrolled">
          <option value="enrolled">enrolled; waits when there is no room</option>
          <option value="applied">applied, nothing decided yet</option>
          <option value="waitlisted">on the waitlist</option>
        </Choice>
        <button type="submit" className="btn btn-primary w-fit">
          Add to the roll
        </button>
      </ActionForm>
    </>
  );
}

interface Props {
  readonly courseId: string;
  readonly person: RollPerson;
  readonly groups: Groups;
  /** The person as the form has them: what the way back puts in again. */
  readonly cells: Required<RollCells>;
  /** Others of the household who are enrolled. */
  readonly siblings: string;
  /** Where the panel is closed. */
  readonly close: string;
}

/** Changes a person of the roll. */
export function EditPerson({ courseId, person, groups, cells, siblings, close }: Props) {
  const { id, version, name, householdId, sharedKit } = person;
  return (
    <>
      <h2 id="person-form" className="mb-3 text-xl font-bold">
        Edit {name}
      </h2>
      <ActionForm
        key={id}
        version={version}
        action={edit.bind(null, id, version, cells)}
        label={`Edit ${name}`}
        className="flex flex-col gap-3"
      >
        <PersonFields cells={cells} groups={groups} />
        <div className="flex gap-2">
          <button type="submit" className="btn btn-primary">
            Save
          </button>
          <Link href={close} className="btn" scroll={false}>
            Close
          </Link>
        </div>
      </ActionForm>
      <Link href={`/families/${householdId}`} className="link mt-3 block">
        What they have at home and agreed to
      </Link>
      {siblings && (
        <form
          action={oneKit.bind(null, courseId, householdId, sharedKit !== 1)}
          className="mt-4 border-t border-base-300 pt-3"
        >
          <p className="mb-2 text-sm">
            In the household of {siblings}.{' '}
            {sharedKit === 1
              ? 'They get one kit, made without what any of them avoids.'
              : 'Each gets a kit of their own.'}
          </p>
          <button type="submit" className="btn btn-sm">
            {sharedKit === 1 ? 'A kit for each' : 'One kit for all of them'}
          </button>
        </form>
      )}
    </>
  );
}
