// What is usual in a country: a proposal that a person accepts or changes, and never more.

import { type Manner, USUAL_MANNERS } from './manner';

/** What a country proposes for a programme in it. */
export interface CountryUsage {
  /** ISO 4217; '' where it is not known here. */
  readonly currency: string;
  readonly measureSystem: 'us' | 'metric';
  /** The nearer of the two sets of typical figures; the local code decides. */
  readonly safetyProfile: 'us' | 'uk';
  readonly manner: Manner;
}

const EURO = 'AD AT BE BG HR CY EE FI FR DE GR IE IT LV LT LU MT MC ME NL PT SM SK SI ES VA';

/** ISO 4217 by ISO 3166, of countries with money of their own. */
const CURRENCIES: Readonly<Record<string, string>> = {
  AE: 'AED',
  AL: 'ALL',
  AR: 'ARS',
  AU: 'AUD',
  BA: 'BAM',
  BR: 'BRL',
  CA: 'CAD',
  CH: 'CHF',
  CL: 'CLP',
  CN: 'CNY',
  CO: 'COP',
  CR: 'CRC',
  CZ: 'CZK',
  DK: 'DKK',
  EG: 'EGP',
  FO: 'DKK',
  GB: 'GBP',
  GG: 'GBP',
  GI: 'GIP',
  GL: 'DKK',
  HK: 'HKD',
  HU: 'HUF',
  ID: 'IDR',
  IL: 'ILS',
  IM: 'GBP',
  IN: 'INR',
  IS: 'ISK',
  JE: 'GBP',
  JM: 'JMD',
  JP: 'JPY',
  KE: 'KES',
  KR: 'KRW',
  LI: 'CHF',
  MA: 'MAD',
  MK: 'MKD',
  MX: 'MXN',
  MY: 'MYR',
  NG: 'NGN',
  NO: 'NOK',
  NZ: 'NZD',
  PE: 'PEN',
  PH: 'PHP',
  PK: 'PKR',
  PL: 'PLN',
  PR: 'USD',
  RO: 'RON',
  RS: 'RSD',
  SA: 'SAR',
  SE: 'SEK',
  SG: 'SGD',
  TH: 'THB',
  TR: 'TRY',
  TT: 'TTD',
  TW: 'TWD',
  UA: 'UAH',
  US: 'USD',
  UY: 'UYU',
  VN: 'VND',
  ZA: 'ZAR',
};

/** Where cups and spoons are what a kitchen measures with, and US guidance is what is taught. */
const AS_IN_THE_US = new Set(['US', 'PR']);
/** Where people read a clock of twelve hours, the day before the month. */
const TWELVE_HOURS = new Set([
  'AU',
  'CA',
  'EG',
  'IN',
  'MY',
  'NZ',
  'PH',
  'PK',
  'SA',
  'AE',
  'KE',
  'NG',
  'JM',
  'TT',
  'CO',
  'MX',
]);
/** Where a week is read from Sunday. */
const FROM_SUNDAY = new Set(['BR', 'CA', 'CO', 'HK', 'IL', 'IN', 'JM', 'JP', 'KR', 'MX', 'PE', 'PH', 'SA', 'TW', 'ZA']);

/**
 * What a country proposes. For one that is not known here: metric measures, and no currency.
 *
 * @param country ISO 3166, two letters
 * @example
 * usageIn('US') //=> { currency: 'USD', measureSystem: 'us', safetyProfile: 'us', manner: USUAL_MANNERS.us }
 * usageIn('IE').currency //=> 'EUR'
 */
export function usageIn(country: string): CountryUsage {
  const currency = EURO.split(' ').includes(country) ? 'EUR' : (CURRENCIES[country] ?? '');
  if (AS_IN_THE_US.has(country))
    return { currency, measureSystem: 'us', safetyProfile: 'us', manner: USUAL_MANNERS.us };
  const manner: Manner = {
    dateOrder: 'day first',
    clock: TWELVE_HOURS.has(country) ? 12 : 24,
    firstWeekday: FROM_SUNDAY.has(country) ? 7 : 1,
  };
  return { currency, measureSystem: 'metric', safetyProfile: 'uk', manner };
}

/**
 * Where most likely somebody is who reads a clock: the first country that keeps its time zone.
 *
 * @param zonesOf the zones of each country
 * @example
 * countryOfZone('Europe/Dublin', [['GB', ['Europe/London']], ['IE', ['Europe/Dublin']]]) //=> 'IE'
 */
export const countryOfZone = (
  timeZone: string,
  zonesOf: readonly (readonly [country: string, zones: readonly string[]])[],
): string => zonesOf.find(([, zones]) => zones.includes(timeZone))?.[0] ?? '';
