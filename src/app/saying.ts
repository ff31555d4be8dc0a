import { cache } from 'react';
import { type Saying, sayingFacts, sayingOf } from '@/core/plan/saying';
import { requireMember } from './access';

/** How the programme of the one who asks says dates, times and money. */
export const saying = cache(async (): Promise<Saying> => sayingOf(sayingFacts((await requireMember()).programme)));
