import { call } from '@/app/access';
import { readQuery } from '@/app/query';
import { viewFirstRun } from '@/services/programme/first-run';
import { PageTitle } from '@/ui/page';
import { SettingUp } from './setting-up';

export const metadata = { title: 'Setting up' };

/** What a programme needs before its first kit sheet, in any order. */
export default async function Start({ searchParams }: { searchParams: Promise<{ country?: string }> }) {
  const { country = '' } = await readQuery(searchParams);
  const found = await call(viewFirstRun, { country });
  return (
    <>
      <PageTitle title="Setting up" over="In any order; leave out what you do not need" />
      <SettingUp found={found} />
    </>
  );
}
