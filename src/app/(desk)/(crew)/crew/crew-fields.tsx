import { DUTY_KINDS, SKILLS, type Skill } from '@/core/crew/duties';
import type { addCrewMember, listCrew } from '@/services/crew/people';
import type { InputOf } from '@/services/gate/gate';
import { DateField } from '@/ui/form/dates';
import { Choice, Field, TextArea, Tick } from '@/ui/form/field';

type Member = Awaited<ReturnType<typeof listCrew>>['people'][number];

/** The field of a skill, of its last day, and of who saw the proof. */
export const skillField = (skill: Skill, what: 'held' | 'until' | 'seen') => `${what} ${skill}`;

/** What a form says of somebody, as the service takes it. */
export function crewFrom(data: FormData): InputOf<typeof addCrewMember> {
  const text = (name: string) => String(data.get(name) ?? '');
  const kindsOf = (name: string) => DUTY_KINDS.filter((kind) => data.getAll(name).includes(kind));
  return {
    name: text('name'),
    contact: text('contact'),
    languages: text('languages'),
    memberId: text('memberId'),
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
    likes: kindsOf('likes'),
    ratherNot: kindsOf('ratherNot'),
    goesTo: data.getAll('goesTo').map(String),
    withWhom: data.getAll('withWhom').map(String),
    apart: data.getAll('apart').map(String),
    endsOn: text('endsOn'),
  };
}

/** The fields of somebody of the crew. */
export function CrewMemberFields({
  of,
  others,
  places,
  members,
}: {
  of?: Member;
  others: readonly Member[];
  places: readonly string[];
  members: readonly { readonly id: string; readonly name: string }[];
}) {
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-2">
        <Field label="Name" name="name" required maxLength={120} defaultValue={of?.name} />
        <Field label="How to reach them" name="contact" maxLength={255} defaultValue={of?.contact} />
        <Field label="Languages" name="languages" maxLength={255} defaultValue={of?.languages} />
        <Choice label="Their sign-in" name="memberId" defaultValue={of?.memberId ?? ''}>
          <option value="">none</option>
          {members.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
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
      <Ticks legend="Glad of" name="likes" of={DUTY_KINDS} ticked={of?.likes} />
      <Ticks legend="Rather not" name="ratherNot" of={DUTY_KINDS} ticked={of?.ratherNot} />
      {places.length > 1 && (
        <Ticks
          legend="Goes to"
          hint="Tick none where every place is near enough."
          name="goesTo"
          of={[...new Set([...places, ...(of?.goesTo ?? [])])]}
          ticked={of?.goesTo}
        />
      )}
      {others.length > 0 && (
        <details>
          <summary className="cursor-pointer font-semibold">With whom, and apart from whom</summary>
          <div className="mt-3 flex flex-col gap-4">
            <People legend="Likes to be there with" name="withWhom" people={others} ticked={of?.withWhom} />
            <People legend="Never on one duty with" name="apart" people={others} ticked={of?.apart} />
          </div>
        </details>
      )}
    </>
  );
}

interface Choices {
  readonly legend: string;
  readonly name: string;
  readonly ticked?: readonly string[];
}

/** Words to tick, as many as hold. */
function Ticks({ legend, name, of, ticked, hint }: Choices & { of: readonly string[]; hint?: string }) {
  return (
    <fieldset>
      <legend className="font-bold">{legend}</legend>
      {hint && <p className="text-sm">{hint}</p>}
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        {of.map((each) => (
          <Tick key={each} label={each} name={name} value={each} defaultChecked={ticked?.includes(each)} />
        ))}
      </div>
    </fieldset>
  );
}

/** People to tick. */
function People({ legend, name, people, ticked }: Choices & { people: readonly Pick<Member, 'id' | 'name'>[] }) {
  return (
    <fieldset>
      <legend className="font-bold">{legend}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        {people.map((each) => (
          <Tick
            key={each.id}
            label={each.name}
            name={name}
            value={each.id}
            defaultChecked={ticked?.includes(each.id)}
          />
        ))}
      </div>
    </fieldset>
  );
}
