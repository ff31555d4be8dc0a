import { minutesOf } from '@/core/plan/civil';
import { readTime } from '@/core/plan/manner';
import { ServiceError } from '../errors';

/**
 * Hours when somebody is there, as they are typed: both or neither, in order.
 *
 * @throws ServiceError that names the field
 */
export function readSpan({ from, to }: { readonly from: string; readonly to: string }): { from?: number; to?: number } {
  const refuse = (where: string, message: string) =>
    new ServiceError('invalid', 'Nothing was saved yet.', [{ where, message }]);
  if (from === '' && to === '') return {};
  const [begins, ends] = [from, to].map((text) => readTime(text));
  if (begins === undefined) throw refuse('from', 'Write a time, such as 16:30: both times, or neither.');
  if (ends === undefined) throw refuse('to', 'Write a time, such as 18:30: both times, or neither.');
  if (minutesOf(begins) >= minutesOf(ends)) throw refuse('to', 'It ends before it begins.');
  return { from: minutesOf(begins), to: minutesOf(ends) };
}
