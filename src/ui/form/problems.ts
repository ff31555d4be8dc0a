/** One thing that is wrong with what a form sent: where, and what to do. */
export interface Problem {
  readonly where: string;
  readonly message: string;
}

/** Problems that are said at their fields, and the others. */
interface Placed {
  /** What is said at a field, by its name. */
  readonly at: ReadonlyMap<string, readonly string[]>;
  readonly rest: readonly Problem[];
}

/** What a machine calls a place: nobody is told so. */
const isPath = (where: string) => /[[.]/.test(where) && !/\s/.test(where);

/**
 * Says each problem at the field it is about. What is wrong inside a field that holds several lines is said there with the
 * number of the line; what no field is about stays for the form as a whole, without what a machine calls its place.
 *
 * @param fields names of the fields that the form has
 * @example
 * placeProblems([{ where: 'containers[3].ml', message: 'At least 5 ml.' }], new Set(['containers'])).at
 * //=> Map { 'containers' => ['Line 4: At least 5 ml.'] }
 */
export function placeProblems(problems: readonly Problem[], fields: ReadonlySet<string>): Placed {
  const at = new Map<string, string[]>();
  const rest: Problem[] = [];
  for (const { where, message } of problems) {
    const field = fieldOf(where, fields);
    if (field === undefined) {
      rest.push({ where: isPath(where) ? '' : where, message });
      continue;
    }
    const line = /^\[(\d+)\]/.exec(where.slice(field.length))?.[1];
    const said = line === undefined ? message : `Line ${Number(line) + 1}: ${message}`;
    const same = at.get(field) ?? [];
    if (!same.includes(said)) same.push(said);
    at.set(field, same);
  }
  return { at, rest };
}

/** The field that a place is in: itself, or the nearest one around it. */
function fieldOf(where: string, fields: ReadonlySet<string>): string | undefined {
  for (let place = where; place !== ''; place = place.replace(/(?:^|\.)[^.[\]]*$|\[[^\]]*\]$/, ''))
    if (fields.has(place)) return place;
  return undefined;
}
