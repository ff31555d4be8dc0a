import { describe, expect, it } from 'vitest';
import { hoursOf } from './hours-fields';

describe('hours as a form sends them', () => {
  it('come together where they are the same, and a weekday left empty has none', () => {
    const sent = {
      from1: '09:00',
      to1: '17:00',
      from2: '09:00',
      to2: '17:00',
      from6: '10:00',
      to6: '14:00',
      from7: '',
      to7: '',
    };
    expect(hoursOf(sent)).toEqual([
      { weekdays: [1, 2], from: '09:00', to: '17:00' },
      { weekdays: [6], from: '10:00', to: '14:00' },
    ]);
  });

  it('end at midnight as the end of the day, and are told apart by their prefix', () => {
    const sent = { 'shop-from3': '18:00', 'shop-to3': '00:00', 'crew-from3': '08:00', 'crew-to3': '12:00' };
    expect(hoursOf(sent, 'shop-')).toEqual([{ weekdays: [3], from: '18:00', to: '24:00' }]);
    expect(hoursOf(sent, 'crew-')).toEqual([{ weekdays: [3], from: '08:00', to: '12:00' }]);
  });

  it('with one end missing are sent as they are, for the service to refuse', () => {
    expect(hoursOf({ from1: '09:00', to1: '' })).toEqual([{ weekdays: [1], from: '09:00', to: '' }]);
  });
});
