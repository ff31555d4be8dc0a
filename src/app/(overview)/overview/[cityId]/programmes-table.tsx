'use client';

import { useMemo } from 'react';
import { type Shown, sayShown } from '@/core/closeout/report/small-numbers';
import type { ProgrammeSeen } from '@/core/overview/city-figures';
import { sayMoney } from '@/core/quantity/money';
import { useSaying } from '@/ui/saying';
import { DataTable, type TableColumn } from '@/ui/table/data-table';

/** What is hidden stands below what is shown. */
const rank = (shown: Shown): number => (typeof shown === 'number' ? shown : -1);
const known = (value: number | null): number => value ?? -1;

/** Each programme of a city in one line. */
export function ProgrammesTable({ programmes }: { programmes: readonly ProgrammeSeen[] }) {
  const say = useSaying();
  const columns = useMemo<TableColumn<ProgrammeSeen>[]>(() => {
    const money = (value: number | null, currency: string) => (value === null ? '–' : sayMoney(value, currency));
    return [
      { id: 'name', header: 'Programme', isName: true, value: ({ name }) => name },
      { id: 'held', header: 'Held', isNumber: true, value: ({ held }) => held },
      { id: 'cancelled', header: 'Called off', isNumber: true, value: ({ cancelled }) => cancelled },
      {
        id: 'next',
        header: 'Next',
        isShort: true,
        value: ({ next }) => next ?? '9999',
        show: ({ next }) => (next ? say.shortDate(next) : 'none'),
      },
      {
        id: 'people',
        header: 'People',
        isNumber: true,
        value: ({ people }) => rank(people),
        show: ({ people }) => sayShown(people),
      },
      {
        id: 'came',
        header: 'Came',
        isNumber: true,
        value: ({ attendance }) => known(attendance),
        show: ({ attendance }) => (attendance === null ? '–' : `${attendance} %`),
      },
      {
        id: 'kits',
        header: 'Kits',
        isNumber: true,
        value: ({ kits }) => rank(kits),
        show: ({ kits }) => sayShown(kits),
      },
      {
        id: 'hours',
        header: 'Crew hours',
        isNumber: true,
        value: ({ crewMinutes }) => crewMinutes,
        show: ({ crewMinutes }) => Math.round(crewMinutes / 60),
      },
      {
        id: 'spent',
        header: 'Spent',
        isNumber: true,
        value: ({ spent }) => spent,
        show: ({ spent, currency }) => money(spent, currency),
      },
      {
        id: 'budget',
        header: 'Budget',
        isNumber: true,
        value: ({ budget }) => known(budget),
        show: ({ budget, currency }) => money(budget, currency),
      },
      {
        id: 'perKit',
        header: 'For each kit',
        isNumber: true,
        value: ({ perKit }) => known(perKit),
        show: ({ perKit, currency }) => money(perKit, currency),
      },
    ];
  }, [say]);
  return <DataTable label="Programmes" rows={programmes} idOf={({ id }) => id} columns={columns} find="Find by name" />;
}
