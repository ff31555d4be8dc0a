import type { Container } from '@/contracts/kits';
import type { ClassWords } from '@/core/classday/routines';
import type { StricterRatios } from '@/core/crew/adults';
import type { LocalRoads } from '@/core/handout/doors/roads';
import type { FirstRun } from '@/core/plan/first-run';
import type { Manner } from '@/core/plan/manner';
import type { OpenHours } from '@/core/plan/place';
import type { ReserveCosts } from '@/core/roll/forecast';
import type { ColumnWords } from '@/core/roll/roll-row';
import type { Rhythm } from '@/core/stages/facts';
import { json, key, maybe, notes, plain, type RowOf, ref, table, whole } from './table';

export const programme = table(
  'programme',
  { belongs: 'id' },
  {
    id: key(),
    /** The city that sees its counts and money; null for none. */
    cityId: maybe(ref()),
    name: notes(),
    measureSystem: plain<'us' | 'metric'>(),
    safetyProfile: plain<'us' | 'uk'>(),
    timeZone: plain(),
    /** ISO 3166 code of two letters; '' while nobody said it. */
    country: plain(),
    /** ISO 4217 code; '' for what is usual where its safety profile holds. */
    currency: plain(),
    /** Months after a household's last session when its data is due to be erased. */
    retentionMonths: whole(),
    /** Opening hours of the shops and working hours of the crew; what is left out is as usual. */
    workHours: json<Partial<Readonly<Record<'shop' | 'crew', readonly OpenHours[]>>> & { readonly rhythm?: Rhythm }>(),
    /** What a kit too many and a kit too few cost. */
    reserveCosts: json<Partial<ReserveCosts>>(),
    /** What headings of roll files mean here. */
    columnWords: json<ColumnWords>(),
    /** The sizes that kits are packed in. */
    containers: json<readonly Container[]>(),
    /** How it says dates and times; null: as is usual where its safety profile holds. */
    manner: maybe(json<Manner>()),
    /** Steps of its setting up that somebody left out, and what there is of the sample. */
    firstRun: json<FirstRun>(),
    /** Where it asks for more adults than the table does. */
    adultRatios: json<StricterRatios>(),
    /** Its own lines of the class's routines, and the number it calls in an emergency. */
    classWords: json<ClassWords>(),
    /** Where its kitchen is, and how quickly one drives from there. */
    roads: json<Partial<LocalRoads>>(),
    /** 1: its coordinators sign in with a code beside the password. */
    secondStep: whole(),
    version: whole(),
  },
);
export type ProgrammeRow = RowOf<typeof programme>;

export const avoidanceMeaning = table(
  'avoidance_meaning',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    /** What families write, in one form (see normaliseNeed). */
    word: notes(),
    codes: json<readonly string[]>(),
    /** Who said it, by name; '' for what was said before it was kept. */
    giverName: plain(),
  },
);
export type AvoidanceMeaningRow = RowOf<typeof avoidanceMeaning>;
