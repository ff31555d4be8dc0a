import { setReading } from '@/store/equipment';
import { findOne } from '@/store/query';
import type { Store } from '@/store/store';

/** Something read off an instrument, and when. */
export interface Reading<T> {
  readonly value: T;
  readonly at: Date;
}

/** A kitchen scale. */
export interface KitchenScale {
  /** Grams lying on it now, from 0; undefined when it has not been switched on. */
  grams(programmeId: string): Promise<Reading<number> | undefined>;
}

/** A thermometer with a probe. */
export interface Probe {
  /** Degrees Celsius at its tip now; undefined when it has not been switched on. */
  celsius(programmeId: string): Promise<Reading<number> | undefined>;
}

/** A code scanner: it types what it reads into whatever has the focus, then presses Enter, like a keyboard. */
export interface CodeScanner {
  /** What lies in front of it; undefined when nothing does. */
  code(programmeId: string): Promise<Reading<string> | undefined>;
}

/** Instruments that show what was set on the Devices page: the same for every server. */
export class SimulatedInstruments implements KitchenScale, Probe, CodeScanner {
  constructor(private readonly store: Store) {}

  private async read(programmeId: string, device: string): Promise<Reading<string> | undefined> {
    const { db } = this.store;
    const row = await findOne(db, db.models.deviceReading, { programmeId, device });
    return row && { value: row.reading, at: row.at };
  }

  private async readNumber(programmeId: string, device: string): Promise<Reading<number> | undefined> {
    const reading = await this.read(programmeId, device);
    return reading && { ...reading, value: Number(reading.value) };
  }

  grams(programmeId: string): Promise<Reading<number> | undefined> {
    return this.readNumber(programmeId, 'scale');
  }

  celsius(programmeId: string): Promise<Reading<number> | undefined> {
    return this.readNumber(programmeId, 'probe');
  }

  code(programmeId: string): Promise<Reading<string> | undefined> {
    return this.read(programmeId, 'scanner');
  }

  /** Puts a weight on the scale, the probe into something, a code before the scanner. */
  async set(programmeId: string, device: 'scale' | 'probe' | 'scanner', reading: string, at: Date): Promise<void> {
    await setReading(this.store.db, { programmeId, device, reading, at });
  }
}
