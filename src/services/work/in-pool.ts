import { GlyphMissing } from '@/formats/packing/label-layout';
import { ColumnsUnclear } from '@/formats/roll/roll-headings';
import { FileRefused } from '@/formats/text';
import { inPool, PoolBusy, SenderLeft } from '@/workers/pool';
import type { TaskAnswer, TaskInput, TaskName } from '@/workers/tasks';
import { ServiceError } from '../errors';

/**
 * Does a task in a process of the pool, for a service.
 *
 * @throws ServiceError when the file cannot be used, a limit was met, or too much waits; ColumnsUnclear goes through, since
 * whoever brings a roll is then asked which column is which
 */
export async function pooled<Name extends TaskName>(task: Name, input: TaskInput<Name>): Promise<TaskAnswer<Name>> {
  try {
    return await inPool(task, input);
  } catch (error) {
    if (error instanceof ColumnsUnclear) throw error;
    if (error instanceof FileRefused || error instanceof GlyphMissing) throw new ServiceError('invalid', error.message);
    if (error instanceof PoolBusy || error instanceof SenderLeft)
      throw new ServiceError('unavailable', 'Too much is being read just now. Try again in a few seconds.');
    throw error;
  }
}
