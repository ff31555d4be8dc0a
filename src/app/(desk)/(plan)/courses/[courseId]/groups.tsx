import { call } from '@/app/access';
import { attempt, formOf } from '@/app/form';
import { MOST_DAYS_AFTER } from '@/core/plan/sitting';
import type { viewCoursePlan } from '@/services/plan/courses';
import { addGroup, editGroup, endGroup } from '@/services/plan/groups';
import { ActionForm } from '@/ui/form/action-form';
import { TimeField } from '@/ui/form/dates';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

type Plan = Awaited<ReturnType<typeof viewCoursePlan>>;
type Group = Plan['groups'][number];

async function add(courseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addGroup, async () => {
    const { sessions } = await call(addGroup, { ...formOf(addGroup, data), courseId });
    return `Added, with ${sessions} ${sessions === 1 ? 'session' : 'sessions'} to come. Say on the roll who is in it.`;
  });
}

async function edit(groupId: string, version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(editGroup, async () => {
    await call(editGroup, { ...formOf(editGroup, data), groupId, version });
    return 'Saved.';
  });
}

async function end(groupId: string, version: number, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(endGroup, async () => {
    await call(endGroup, { groupId, version });
    return 'Ended.';
  });
}

interface Props {
  readonly courseId: string;
  readonly groups: readonly Group[];
  readonly places: readonly string[];
  readonly teachers: Plan['teachers'];
}

/** The groups that a course is given to: planned and bought for together, taught and packed for one by one. */
export function Groups({ courseId, groups, places, teachers }: Props) {
  return (
    <details className="sheet p-4" open={groups.length > 0}>
      <summary className="cursor-pointer text-xl font-bold">Groups</summary>
      <p className="mt-2 text-sm">
        The same sessions for several groups or places: planned and bought once, then packed, taught and handed out for
        each.
      </p>
      <ul className="my-3 flex flex-col gap-2">
        {groups.map((group) => (
          <li key={group.id}>
            <details>
              <summary className="cursor-pointer font-semibold">
                {group.name}
                <span className="block pl-4 text-sm font-normal">{sayUsual(group)}</span>
              </summary>
              <ActionForm
                version={group.version}
                isUndoable
                action={edit.bind(null, group.id, group.version)}
                label={`Change ${group.name}`}
                className="mt-2 flex flex-col gap-3"
              >
                <Field label="Name" name="name" required maxLength={60} defaultValue={group.name} />
                {group.startsAt !== null && <Usual group={group} teachers={teachers} />}
                <button type="submit" className="btn w-fit">
                  Save group
                </button>
              </ActionForm>
              {group.startsAt !== null && (
                <ActionForm action={end.bind(null, group.id, group.version)} className="mt-2">
                  <button type="submit" className="btn btn-sm" aria-label={`End ${group.name}`}>
                    End this group
                  </button>
                </ActionForm>
              )}
            </details>
          </li>
        ))}
      </ul>
      <ActionForm action={add.bind(null, courseId)} label="Add a group" clear className="flex flex-col gap-3">
        {groups.length === 0 && (
          <Field
            label="The group that meets now"
            name="firstName"
            required
            maxLength={60}
            hint="For example: Tuesday group"
          />
        )}
        <Field
          label={groups.length === 0 ? 'The second group' : 'One more group'}
          name="name"
          required
          maxLength={60}
        />
        <Usual teachers={teachers} />
        <button type="submit" className="btn btn-primary w-fit">
          Add group
        </button>
      </ActionForm>
      <datalist id="group-places">
        {places.map((place) => (
          <option key={place} value={place} />
        ))}
      </datalist>
    </details>
  );
}

function sayUsual({ startsAt, daysAfter, place }: Group): string {
  if (startsAt === null) return 'with the sessions themselves';
  const day = daysAfter === 0 ? 'the same day' : `${daysAfter} ${daysAfter === 1 ? 'day' : 'days'} after`;
  return `${day}, ${startsAt}, ${place}`;
}

function Usual({ group, teachers }: { group?: Group; teachers: Props['teachers'] }) {
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <Field
          label="Days after"
          name="daysAfter"
          type="number"
          min={0}
          max={MOST_DAYS_AFTER}
          required
          defaultValue={group?.daysAfter ?? 0}
          hint={`0 to ${MOST_DAYS_AFTER}: food stays fresh`}
        />
        <TimeField label="Starts" name="startsAt" required defaultValue={group?.startsAt ?? '16:00'} />
      </div>
      <Field label="Place" name="place" required maxLength={120} list="group-places" defaultValue={group?.place} />
      <Choice label="Instructor" name="instructorId" defaultValue={group?.instructorId ?? ''}>
        <option value="">the course’s</option>
        {teachers.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Choice>
    </>
  );
}
