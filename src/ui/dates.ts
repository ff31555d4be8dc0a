const long = new Intl.DateTimeFormat('en-GB', {
  weekday: 'long',
  day: 'numeric',
  month: 'long',
  year: 'numeric',
  timeZone: 'UTC',
});
const short = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });

/** A civil date said whole: "Thursday 26 November 2026". */
export const sayLongDate = (date: string): string => long.format(new Date(`${date}T00:00:00Z`)).replace(',', '');

/** A civil date said short: "Thu 26 Nov". */
export const sayShortDate = (date: string): string => short.format(new Date(`${date}T00:00:00Z`)).replace(',', '');

/** Making a format takes longer than using it a hundred times: one for each zone. */
const moments = new Map<string, Intl.DateTimeFormat>();

/** An instant in the programme's time zone: "Thu 26 Nov, 16:00". */
export function sayMoment(instant: string, timeZone: string): string {
  let format = moments.get(timeZone);
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
      timeZone,
    });
    moments.set(timeZone, format);
  }
  return format.format(new Date(instant)).replace(',', '');
}
