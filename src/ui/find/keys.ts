const OFF = 'logistra:keys-off';

/** Whether single keys do something: whoever speaks to their computer, or strays over the keys, turns them off. */
export const keysAreOn = (): boolean => localStorage.getItem(OFF) === null;

export const turnKeys = (on: boolean): void => (on ? localStorage.removeItem(OFF) : localStorage.setItem(OFF, '1'));
