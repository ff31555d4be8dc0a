import { ServiceError } from '../../errors';

/**
 * Degrees as a thermometer of the programme shows them, as tenths of a degree Celsius: °F in the US, where no letter says otherwise.
 *
 * @throws ServiceError where it is no temperature of food
 */
export function tenthsIn(text: string, profile: 'us' | 'uk'): number {
  const read = /^([-−]?\d{1,3}(?:[.,]\d)?)\s*°?\s*([CF])?$/i.exec(text);
  const number = Number((read?.[1] ?? '').replace(',', '.').replace('−', '-'));
  const scale = read?.[2]?.toUpperCase() ?? (profile === 'us' ? 'F' : 'C');
  const tenths = Math.round(scale === 'F' ? ((number - 32) * 50) / 9 : number * 10);
  if (!read || tenths < -400 || tenths > 3000)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      {
        where: 'degrees',
        message: `Write what the thermometer shows, such as ${profile === 'us' ? '41 (°F), or 5C' : '5 (°C)'}.`,
      },
    ]);
  return tenths;
}
