import { describe, expect, it } from 'vitest';
import { placeOf } from './place-fields';

describe('a place as its form sends it', () => {
  it('is under a roof unless it says otherwise, and counts only what was counted', () => {
    expect(placeOf({ name: 'Loft', seats: '', burners: '4', knives: '' })).toMatchObject({
      name: 'Loft',
      seats: '',
      equipment: { burners: '4' },
      minutesBefore: '0',
      shared: false,
      outdoor: null,
    });
    expect(placeOf({ name: 'Pit', isOutdoor: 'on', fuel: 'logs', shared: 'on' })).toMatchObject({
      shared: true,
      outdoor: { fuel: 'logs', waterLitres: '0', lightingMinutes: '60', decideHours: '24' },
    });
  });
});
