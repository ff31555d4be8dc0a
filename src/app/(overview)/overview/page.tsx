import { redirect } from 'next/navigation';
import { requireOverseer } from '@/app/overseeing';

/** Leads to what one looks over: the first city, else the installation. */
export default async function Overview() {
  const { cities } = (await requireOverseer()).overseer;
  redirect(cities[0] ? `/overview/${cities[0].id}` : '/operator');
}
