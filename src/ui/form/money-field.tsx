'use client';

import type { ComponentProps } from 'react';
import { currencySign } from '@/core/quantity/money';
import { useCurrency } from '../saying';
import { Field } from './field';

/** An amount of money, with the sign of the programme's currency in its label. */
export function MoneyField({ label, ...field }: ComponentProps<typeof Field>) {
  return <Field label={`${label} (${currencySign(useCurrency())})`} inputMode="decimal" {...field} />;
}
