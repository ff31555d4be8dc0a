import { saying } from '@/app/saying';
import { type ModePlaces, offerDraft, type Places } from '@/core/roll/waitlist';
import type { RollPerson } from '@/services/sheet/person';

import { ActionForm } from '@/ui/form/action-form';
import { offerPlace } from './actions';

/** Places that are free and who is next, or by how many a group is too full. Nothing where there is nothing to decide. */
export async function Waitlist({
  places,
  people,
  groups,
  course,
  modes,
  coordinator,
}: {
  places: readonly Places[];
  people: readonly RollPerson[];
  groups: readonly { readonly id: string; readonly name: string }[];
  course: { readonly title: string; readonly capacity: number | null; readonly waitlistRule: string };
  modes: readonly ModePlaces[];
  coordinator: string;
}) {
  const say = await saying();
  const full = modes.filter(({ enrolled, room }) => enrolled >= room);
  const crowded = places.filter(({ over, waiting }) => over > 0 || waiting.length > 0);
  if (crowded.length === 0) return null;
  return (
    <section className="sheet mb-5 p-5" aria-labelledby="waitlist">
      <h2 id="waitlist" className="mb-2 text-xl font-bold">
        Places and the waitlist
      </h2>
      <ul className="flex flex-col divide-y divide-base-300">
        {crowded.map(({ groupId, free, over, waiting, next: nextId }) => {
          const group = groups.length > 0 ? (groups.find(({ id }) => id === groupId) ?? groups[0])?.name : undefined;
          const queue = waiting.flatMap((id) => people.find((person) => person.id === id) ?? []);
          const next = queue.find(({ id }) => id === nextId);
          const draft = next && offerDraft(next.name, course.title, coordinator);
          return (
            <li key={groupId} className="flex flex-col gap-2 py-2">
              <p>
                {group && <b>{group}: </b>}
                {over > 0
                  ? `${over} more than the ${course.capacity} there is room for. Nobody is taken off by itself: withdraw somebody, or make more room.`
                  : `${free === null ? 'No limit is set' : free === 0 ? 'No place is free' : `${free} ${free === 1 ? 'place is' : 'places are'} free`}.`}{' '}
                {full.length > 0 && `Full: ${full.map(({ mode, room }) => `${mode} (${room})`).join(', ')}. `}
                {queue.length > 0 &&
                  `${queue.length} ${queue.length === 1 ? 'waits' : 'wait'}, ${course.waitlistRule}: ${queue.map(({ name, since }) => (since ? `${name} since ${say.shortDate(since)}` : name)).join(', ')}.`}
              </p>
              {next && draft && free !== 0 && (
                <details>
                  <summary className="cursor-pointer font-semibold">Give the place to {next.name}</summary>
                  <ActionForm
                    action={offerPlace.bind(null, next.id, next.version)}
                    label={`Give the place to ${next.name}`}
                    className="mt-2 flex flex-col gap-2"
                  >
                    <label className="flex items-center gap-2">
                      <input type="checkbox" name="tell" className="checkbox checkbox-sm" defaultChecked /> Tell the
                      family with this message
                    </label>
                    <label className="flex flex-col gap-1">
                      <span className="text-sm font-semibold">Subject</span>
                      <input name="subject" className="input w-full" maxLength={190} defaultValue={draft.subject} />
                    </label>
                    <label className="flex flex-col gap-1">
                      <span className="text-sm font-semibold">Message</span>
                      <textarea
                        name="body"
                        rows={7}
                        maxLength={4000}
                        className="textarea w-full"
                        defaultValue={draft.body}
                      />
                    </label>
                    <button type="submit" className="btn btn-primary w-fit">
                      Enrol {next.name}
                    </button>
                  </ActionForm>
                </details>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
