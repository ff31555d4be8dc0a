/** Year, month and day of a date as people and spreadsheets write it; both readings where day and month may be swapped. */
function datesIn(text: string): (readonly [number, number, number])[] {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
  if (iso) return [[Number(iso[1]), Number(iso[2]), Number(iso[3])]];
  const said = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/.exec(text);
  if (!said) return [];
  const [a, b, year] = [Number(said[1]), Number(said[2]), Number(said[3])];
  return [
    [year, b, a],
    [year, a, b],
  ];
}

const isDate = ([year, month, day]: readonly [number, number, number]) =>
  month >= 1 && month <= 12 && day >= 1 && day <= new Date(Date.UTC(year, month, 0)).getUTCDate();

/**
 * Whole years since a birth date. Of two ways to read it the younger counts: small children are looked after more strictly.
 *
 * @param born "2018-03-02", "02/03/2018", "2.3.2018"
 * @param today a civil date, "2026-11-25"
 * @returns undefined where it is no date, or not one of the past 120 years
 * @example ageFromBirth('2018-11-26', '2026-11-25') //=> 7
 */
export function ageFromBirth(born: string, today: string): number | undefined {
  const [year = 0, month = 0, day = 0] = today.split('-').map(Number);
  const ages = datesIn(born.trim())
    .filter(isDate)
    .map(([y, m, d]) => year - y - (month < m || (month === m && day < d) ? 1 : 0));
  const age = Math.min(...ages);
  return age >= 0 && age <= 120 ? age : undefined;
}
