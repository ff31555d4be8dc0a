import { DUTY_KINDS, SKILLS, type Skill } from '@/core/crew/duties';
import type { addCrewMember, listCrew } from '@/services/crew/people';
import type { InputOf } from '@/services/gate/gate';
import { DateField } from '@/ui/form/dates';
import { Field, TextArea, Tick } from '@/ui/form/field';

type Member = Awaited<ReturnType<typeof listCrew>>['people'][number];

/** The field of a skill, of its last day, and of who saw the proof. */
export const skillField = (skill: Skill, what: 'held' | 'until' | 'seen') => `${what} ${skill}`;

/** What a form says of somebody, as the service takes it. */
export function crewFrom(data: FormData): InputOf<typeof addCrewMember> {
  const text = (name: string) => String(data.get(name) ?? '');
  const kinds = data.getAll('ratherNot').map(String);
  return {
    name: text('name'),
    contact: text('contact'),
    languages: text('languages'),
    isAdult: data.has('isAdult'),
    skills: SKILLS.filter((skill) => data.has(skillField(skill, 'held'))).map((skill) => ({
      skill,
      until: text(skillField(skill, 'until')),
      seen: text(skillField(skill, 'seen')),
    })),
    free: text('free'),
    mostDuties: text('mostDuties'),
    mostHours: text('mostHours'),
    noLifting: data.has('noLifting'),
    ratherNot: DUTY_KINDS.filter((kind) => kinds.includes(kind)),
    apart: data.getAll('apart').map(String),
    endsOn: text('endsOn'),
  };
}

/** The fields of somebody of the crew. */
export function CrewMemberFields({ of, others }: { of?: Member; others: readonly Member[] }) {
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-2">
        <Field label="Name" name="name" required maxLength={120} defaultValue={of?.name} />
        <Field label="How to reach them" name="contact" maxLength={255} defaultValue={of?.contact} />
        <Field label="Languages" name="languages" maxLength={255} defaultValue={of?.languages} />
        <DateField label="Their data is kept until" name="endsOn" defaultValue={of?.endsOn ?? ''} />
      </div>
      <Tick label="An adult" name="isAdult" defaultChecked={of ? of.isAdult === 1 : true} />
      <fieldset className="flex flex-col gap-2">
        <legend className="font-bold">Skills and checks</legend>
        <p className="text-sm">
          Write the last day of what ends, and who saw the proof and when. The proof itself is not kept.
        </p>
        {SKILLS.map((skill) => {
          const held = of?.skills[skill];
          return (
            <div key={skill} className="grid items-end gap-2 sm:grid-cols-[12rem_11rem_1fr]">
              <Tick label={skill} name={skillField(skill, 'held')} defaultChecked={held !== undefined} />
              <DateField label={`Until: ${skill}`} name={skillField(skill, 'until')} defaultValue={held?.until ?? ''} />
              <Field
                label={`Seen by, on: ${skill}`}
                name={skillField(skill, 'seen')}
                maxLength={120}
                defaultValue={held?.seen}
              />
            </div>
          );
        })}
      </fieldset>
      <TextArea
        label="When they have time"
        name="free"
        rows={3}
        maxLength={2000}
        defaultValue={of?.free}
        hint="One a line: “Thu 14:00-18:00”, “weekends after 10 am”, “not on 3 Dec 2026”, “on 5 Dec 2026 9-12”."
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <Field
          label="At most so many duties in a plan"
          name="mostDuties"
          type="number"
          min={1}
          defaultValue={of?.limits.mostDuties ?? ''}
        />
        <Field
          label="At most so many hours in a plan"
          name="mostHours"
          type="number"
          min={1}
          defaultValue={of?.limits.mostHours ?? ''}
        />
      </div>
      <Tick label="Lifts nothing heavy" name="noLifting" defaultChecked={of?.limits.noLifting ?? false} />
      <fieldset>
        <legend className="font-bold">Rather not</legend>
        <div className="flex flex-wrap gap-x-5 gap-y-2">
          {DUTY_KINDS.map((kind) => (
            <Tick key={kind} label={kind} name="ratherNot" value={kind} defaultChecked={of?.ratherNot.includes(kind)} />
          ))}
        </div>
      </fieldset>
      {others.length > 0 && (
        <details>
          <summary className="cursor-pointer font-semibold">Never on one duty with</summary>
          <div className="mt-2 flex flex-wrap gap-x-5 gap-y-2">
            {others.map(({ id, name }) => (
              <Tick key={id} label={name} name="apart" value={id} defaultChecked={of?.apart.includes(id)} />
            ))}
          </div>
        </details>
      )}
    </>
  );
}
