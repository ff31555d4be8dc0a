import Holidays from 'date-holidays';

/** The package's own data; in English, so that a programme abroad reads what it is told. */
const all = new Holidays();

/** Countries whose public holidays are on record, by name. */
export function holidayCountries(): { code: string; name: string }[] {
  return Object.entries(all.getCountries('en') ?? {})
    .map(([code, name]) => ({ code, name }))
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** Regions of a country that have holidays of their own. */
export function holidayRegions(country: string): { code: string; name: string }[] {
  return Object.entries(all.getStates(country, 'en') ?? {})
    .map(([code, name]) => ({ code, name }))
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

/**
 * Public holidays, as the date-holidays package has them: check them against the official list.
 *
 * @param country ISO 3166 code
 * @param region the package's code, or '' for the whole country
 * @returns undefined when nothing is on record
 */
export function publicHolidays(
  country: string,
  region: string,
  years: readonly number[],
): { name: string; code: string; days: { date: string; title: string }[] } | undefined {
  const country_ = holidayCountries().find(({ code }) => code === country);
  const region_ = region === '' ? undefined : holidayRegions(country).find(({ code }) => code === region);
  if (!country_ || (region !== '' && !region_)) return undefined;
  const calendar = region_ ? new Holidays(country, region_.code) : new Holidays(country);
  const days = years
    .flatMap((year) => calendar.getHolidays(year, 'en'))
    .filter(({ type }) => type === 'public')
    .map(({ date, name }) => ({ date: date.slice(0, 10), title: name }));
  const byDay = new Map(days.map((day) => [day.date, day]));
  const name = region_ ? `${region_.name}, ${country_.name}` : country_.name;
  return { name, code: region_ ? `${country}-${region}` : country, days: [...byDay.values()] };
}

/** The time zones of a country, the most peopled first as the package has them. */
export const zonesIn = (country: string): string[] =>
  country in (all.getCountries('en') ?? {}) ? new Holidays(country).getTimezones() : [];
