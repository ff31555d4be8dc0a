import { readDegrees } from '@/core/packing/made/batch';
import { ServiceError } from '../../errors';

/**
 * Degrees as a thermometer of the programme shows them, as tenths of a degree Celsius.
 *
 * @throws ServiceError where it is no temperature of food
 */
export function tenthsIn(text: string, profile: 'us' | 'uk'): number {
  const tenths = readDegrees(text, profile);
  if (tenths === undefined)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      {
        where: 'degrees',
        message: `Write what the thermometer shows, such as ${profile === 'us' ? '41 (°F), or 5C' : '5 (°C)'}.`,
      },
    ]);
  return tenths;
}
