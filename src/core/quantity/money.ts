// Money as a programme says it. Kept in hundredths of its currency, whichever it is, and always whole.

/** What is usual in a country, until a programme says otherwise. */
const USUAL_CURRENCIES: Readonly<Record<'us' | 'uk', string>> = { us: 'USD', uk: 'GBP' };

/** The currency of a programme: what it chose, else what is usual where it is. ISO 4217. */
export const currencyOf = ({
  currency,
  safetyProfile,
}: {
  readonly currency: string;
  readonly safetyProfile: 'us' | 'uk';
}): string => currency || USUAL_CURRENCIES[safetyProfile];

/** Making a format takes longer than using it a hundred times. */
const formats = new Map<string, Intl.NumberFormat>();

function formatOf(currency: string): Intl.NumberFormat {
  let format = formats.get(currency);
  if (!format) {
    format = new Intl.NumberFormat('en', { style: 'currency', currency, currencyDisplay: 'narrowSymbol' });
    formats.set(currency, format);
  }
  return format;
}

/**
 * An amount of money with its currency, as it is read.
 *
 * @param hundredths of the currency, whole
 * @param currency ISO 4217; any other word for it stands behind the figure
 * @example
 * sayMoney(450, 'GBP') //=> '£4.50'
 * sayMoney(123456, 'USD') //=> '$1,234.56'
 * sayMoney(45000, 'JPY') //=> '¥450'
 */
export const sayMoney = (hundredths: number, currency: string): string =>
  /^[A-Z]{3}$/.test(currency)
    ? // A space that does not break comes between a code and its figure: as plain text it is a space.
      formatOf(currency)
        .format(hundredths / 100)
        .replace(/\u00a0/g, ' ')
    : `${writeMoney(hundredths)} ${currency}`.trimEnd();

/**
 * An amount as it stands in a field: the figure alone.
 *
 * @example
 * writeMoney(450) //=> '4.50'
 */
export const writeMoney = (hundredths: number): string => (hundredths / 100).toFixed(2);

/**
 * The sign of a currency, for the label of a field.
 *
 * @example
 * currencySign('EUR') //=> '€'
 * currencySign('CHF') //=> 'CHF'
 */
export const currencySign = (currency: string): string =>
  formatOf(currency)
    .formatToParts(0)
    .find(({ type }) => type === 'currency')?.value ?? currency;
