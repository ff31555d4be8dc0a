'use client';

import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useMemo, useRef, useState, useTransition } from 'react';
import { HOLDS } from '@/core/crew/crew-standing';
import type { RosterCase } from '@/core/crew/roster-case';
import { rulesAgainst } from '@/core/crew/roster-why';
import { BY_WORD, sayRule } from '@/core/crew/say-rule';
import { useSaying } from '@/ui/saying';

import {
  Cell,
  COLUMN,
  type Duty,
  HEAD,
  keyOf,
  NAMES,
  type Person,
  type PlaceIn,
  ROW,
  Row,
  SIGNS,
} from './roster-cells';
export interface Change {
  readonly sessionId: string;
  readonly duty: string;
  readonly crewId: string;
  readonly what: 'put' | 'take away' | 'pin' | 'unpin' | 'rule out' | 'allow';
}
type Answer = { readonly ok: boolean; readonly message?: string };

interface Props {
  readonly given: Pick<RosterCase, 'duties' | 'people' | 'travel'>;
  readonly people: readonly Person[];
  readonly duties: readonly Duty[];
  readonly places: readonly PlaceIn[];
  readonly save: (changes: readonly Change[], byWord: boolean) => Promise<Answer>;
}

/**
 * People down, duties across: who does what, changed by keys or by dragging a place to another person's row. Each change is checked
 * while it is made, and its reason said where it cannot be.
 */
export function RosterTable({ given, people, duties, places, save }: Props) {
  const say = useSaying();
  const [now, setNow] = useState(places);
  const [at, setAt] = useState({ row: 0, column: 0 });
  const [held, setHeld] = useState<{ duty: string; person: string }>();
  const [said, setSaid] = useState('');
  const [isSaving, startSaving] = useTransition();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: people.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
    scrollPaddingStart: HEAD,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: duties.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => COLUMN,
    overscan: 4,
    scrollPaddingStart: NAMES,
  });
  const byKey = useMemo(() => new Map(now.map((place) => [keyOf(place.duty, place.person), place])), [now]);
  const holders = useMemo(() => {
    const counts = new Map<string, number>();
    for (const { duty, state } of now) if (HOLDS.includes(state)) counts.set(duty, (counts.get(duty) ?? 0) + 1);
    return counts;
  }, [now]);
  const couldNot = useMemo(() => {
    const rules = rulesAgainst(
      given,
      now.filter(({ state }) => HOLDS.includes(state)),
    );
    const personOf = new Map((given.people ?? []).map((person) => [person.id, person]));
    const dutyOf = new Map((given.duties ?? []).map((duty) => [duty.id, duty]));
    return (personId: string, dutyId: string) => {
      const [person, duty] = [personOf.get(personId), dutyOf.get(dutyId)];
      return person !== undefined && duty !== undefined && rules(person, duty) !== undefined;
    };
  }, [given, now]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));

  /** Why somebody cannot take a duty; undefined where nothing stands against it. */
  const against = (personId: string, dutyId: string, without: readonly PlaceIn[] = now) => {
    const person = given.people?.find(({ id }) => id === personId);
    const duty = given.duties?.find(({ id }) => id === dutyId);
    const shown = people.find(({ id }) => id === personId);
    if (!person || !duty || !shown) return undefined;
    const rule = rulesAgainst(
      given,
      without.filter(({ state }) => HOLDS.includes(state)),
    )(person, duty);
    return rule && { rule, why: `${shown.name} ${sayRule(rule, duty.skills ?? [], person.skills ?? {}, shown)}.` };
  };
  const dutyAt = (id: string) => duties.find((duty) => duty.id === id);
  const nameOf = (id: string) => people.find((person) => person.id === id)?.name ?? '';

  /** Shows changes at once, and takes them back where they are refused. */
  const make = (changes: readonly Change[], after: readonly PlaceIn[], words: string, byWord = false) => {
    const before = now;
    setNow(after);
    setSaid(words);
    startSaving(async () => {
      const answer = await save(changes, byWord).catch(
        (): Answer => ({ ok: false, message: 'The server did not answer. Nothing was saved.' }),
      );
      if (answer.ok) return;
      setNow(before);
      setSaid(answer.message ?? 'It was refused. Nothing was saved.');
    });
  };
  const changeOf = (duty: Duty, crewId: string, what: Change['what']): Change => ({
    sessionId: duty.sessionId,
    duty: duty.key,
    crewId,
    what,
  });
  const without = (dutyId: string, personId: string) =>
    now.filter((place) => place.duty !== dutyId || place.person !== personId);
  const put = (duty: Duty, personId: string, byWord = false) => {
    const place = byKey.get(keyOf(duty.id, personId));
    if (place && HOLDS.includes(place.state)) return;
    if ((holders.get(duty.id) ?? 0) >= duty.people)
      return setSaid(`${duty.title} has all its people: take somebody away, or move them here.`);
    const no = against(personId, duty.id);
    if (no && !(byWord && BY_WORD.includes(no.rule)))
      return setSaid(BY_WORD.includes(no.rule) ? `${no.why} If they said yes all the same, press Y.` : no.why);
    const fresh: PlaceIn = { duty: duty.id, person: personId, state: 'planned', isPinned: true };
    make(
      [changeOf(duty, personId, 'put')],
      [...without(duty.id, personId), fresh],
      `${nameOf(personId)}: ${duty.title}.`,
      byWord,
    );
  };
  const takeAway = (duty: Duty, personId: string) => {
    if (!byKey.has(keyOf(duty.id, personId))) return;
    make(
      [changeOf(duty, personId, 'take away')],
      without(duty.id, personId),
      `${nameOf(personId)} is not at ${duty.title} any more.`,
    );
  };
  const move = (dutyId: string, from: string, to: string) => {
    const duty = dutyAt(dutyId);
    if (!duty || from === to) return;
    const place = byKey.get(keyOf(dutyId, to));
    if (place && HOLDS.includes(place.state)) return setSaid(`${nameOf(to)} is at ${duty.title} already.`);
    const rest = without(dutyId, from);
    const no = against(to, dutyId, rest);
    if (no) return setSaid(no.why);
    const fresh: PlaceIn = { duty: dutyId, person: to, state: 'planned', isPinned: true };
    const after = [...rest.filter((each) => each.duty !== dutyId || each.person !== to), fresh];
    make(
      [changeOf(duty, from, 'take away'), changeOf(duty, to, 'put')],
      after,
      `${duty.title}: ${nameOf(to)} instead of ${nameOf(from)}.`,
    );
  };
  const ruleOut = (duty: Duty, personId: string) => {
    const place = byKey.get(keyOf(duty.id, personId));
    const isOut = place?.state === 'ruled out';
    const fresh: PlaceIn = { duty: duty.id, person: personId, state: 'ruled out', isPinned: false };
    const rest = without(duty.id, personId);
    make(
      [changeOf(duty, personId, isOut ? 'allow' : 'rule out')],
      isOut ? rest : [...rest, fresh],
      isOut ? `${nameOf(personId)} may be planned for ${duty.title} again.` : `${duty.title}: not ${nameOf(personId)}.`,
    );
  };
  const pin = (duty: Duty, personId: string) => {
    const place = byKey.get(keyOf(duty.id, personId));
    if (place?.state !== 'planned') return;
    make(
      [changeOf(duty, personId, place.isPinned ? 'unpin' : 'pin')],
      now.map((each) => (each === place ? { ...each, isPinned: !each.isPinned } : each)),
      place.isPinned ? 'A new plan may change it.' : 'It stays, whatever is planned.',
    );
  };
  const go = (row: number, column: number) => {
    const next = {
      row: Math.max(0, Math.min(people.length - 1, row)),
      column: Math.max(0, Math.min(duties.length - 1, column)),
    };
    setAt(next);
    rows.scrollToIndex(next.row);
    columns.scrollToIndex(next.column);
    const [person, duty] = [people[next.row], duties[next.column]];
    if (!person || !duty || held) return;
    const place = byKey.get(keyOf(duty.id, person.id));
    setSaid(
      `${person.name}, ${duty.title}, ${say.shortDate(duty.date)}: ${place ? SIGNS[place.state][1] : (against(person.id, duty.id)?.why ?? 'could do it')}`,
    );
  };
  const onKey = (event: KeyboardEvent) => {
    const [person, duty] = [people[at.row], duties[at.column]];
    if (!person || !duty || event.ctrlKey || event.metaKey || event.altKey) return;
    const steps: Record<string, () => void> = {
      ArrowUp: () => go(at.row - 1, at.column),
      ArrowDown: () => go(at.row + 1, at.column),
      ArrowLeft: () => go(at.row, at.column - 1),
      ArrowRight: () => go(at.row, at.column + 1),
      PageUp: () => go(at.row - 10, at.column),
      PageDown: () => go(at.row + 10, at.column),
      Home: () => go(at.row, 0),
      End: () => go(at.row, duties.length - 1),
      Enter: () => {
        if (held) {
          setHeld(undefined);
          move(held.duty, held.person, person.id);
        } else put(duty, person.id);
      },
      m: () => {
        const place = byKey.get(keyOf(duty.id, person.id));
        if (!place || !HOLDS.includes(place.state)) return;
        setHeld({ duty: duty.id, person: person.id });
        setSaid(`${duty.title} of ${person.name}: go to another row and press Enter, or Escape.`);
      },
      Escape: () => {
        setHeld(undefined);
        setSaid('');
      },
      Delete: () => takeAway(duty, person.id),
      Backspace: () => takeAway(duty, person.id),
      y: () => put(duty, person.id, true),
      n: () => ruleOut(duty, person.id),
      k: () => pin(duty, person.id),
    };
    const step = steps[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!step) return;
    event.preventDefault();
    step();
  };
  const onDrop = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const [duty = '', person = ''] = String(active.id).split('\n');
    move(duty, person, String(over.id));
  };
  const active = `roster-${at.row}-${at.column}`;
  return (
    <>
      <p className="mb-2 text-sm">
        Arrows go; Enter puts somebody there; Delete takes them away; M moves a place to another row; K keeps it in a
        new plan; N rules somebody out; Y where they said yes though it is not their time. Or drag a place to another
        row. Grey: they cannot.
      </p>
      <p role="status" className="mb-2 min-h-6 font-semibold">
        {said}
        {isSaving && ' Saving …'}
      </p>
      <DndContext sensors={sensors} onDragEnd={onDrop} accessibility={{ container: undefined }}>
        {/* biome-ignore lint/a11y/useSemanticElements: a table of 36,000 cells is drawn in part, and moved in by keys */}
        <div
          ref={scroller}
          role="grid"
          aria-label="People against duties"
          aria-rowcount={people.length + 1}
          aria-colcount={duties.length + 1}
          aria-activedescendant={active}
          tabIndex={0}
          onKeyDown={onKey}
          className="sheet relative h-[34rem] overflow-auto"
        >
          <div
            style={{ height: rows.getTotalSize() + HEAD, width: columns.getTotalSize() + NAMES, position: 'relative' }}
          >
            {/* biome-ignore lint/a11y/useSemanticElements: as above */}
            <div
              role="row"
              tabIndex={-1}
              aria-rowindex={1}
              className="sticky top-0 z-20 border-b border-base-300 bg-base-100"
              style={{ height: HEAD }}
            >
              {columns.getVirtualItems().map(({ index, start }) => {
                const duty = duties[index] as Duty;
                const missing = duty.people - (holders.get(duty.id) ?? 0);
                return (
                  // biome-ignore lint/a11y/useSemanticElements: as above
                  <div
                    key={duty.id}
                    role="columnheader"
                    tabIndex={-1}
                    aria-colindex={index + 2}
                    title={duty.session}
                    className="absolute top-0 overflow-hidden border-l border-base-300 p-1 text-xs leading-tight"
                    style={{ left: NAMES + start, width: COLUMN, height: HEAD }}
                  >
                    <b className="block truncate">{duty.title}</b>
                    <span className="block truncate">
                      {say.shortDate(duty.date)}, {say.time(duty.from)}
                    </span>
                    <span className="block truncate">{duty.session}</span>
                    {missing > 0 && <b className="text-error">{missing} empty</b>}
                  </div>
                );
              })}
            </div>
            {rows.getVirtualItems().map(({ index, start }) => {
              const person = people[index] as Person;
              return (
                <Row key={person.id} person={person} index={index} top={start + HEAD}>
                  {columns.getVirtualItems().map((column) => {
                    const duty = duties[column.index] as Duty;
                    const place = byKey.get(keyOf(duty.id, person.id));
                    const isAt = at.row === index && at.column === column.index;
                    return (
                      <Cell
                        key={duty.id}
                        id={`roster-${index}-${column.index}`}
                        left={NAMES + column.start}
                        column={column.index}
                        place={place}
                        isAt={isAt}
                        couldNot={!place && couldNot(person.id, duty.id)}
                        isHeld={held?.duty === duty.id && held.person === person.id}
                        label={`${person.name}, ${duty.title}, ${say.shortDate(duty.date)}: ${place ? SIGNS[place.state][1] : 'not there'}`}
                        onPick={() => go(index, column.index)}
                      />
                    );
                  })}
                </Row>
              );
            })}
          </div>
        </div>
      </DndContext>
    </>
  );
}
