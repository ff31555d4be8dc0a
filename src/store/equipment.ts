import { change, select } from './sql';
import type { Db } from './store';
import type { DeviceReadingRow, PrintOutRow } from './tables/equipment';

/** The last twenty print-outs of a programme, newest first. */
export const printOutsOf = (db: Db, values: { programmeId: string }) =>
  select<{ id: string; title: string; pages: number; at: Date }>(
    db,
    'SELECT id, title, pages, at FROM print_out WHERE programme_id = :programmeId ORDER BY at DESC LIMIT 20',
    values,
  );

/**
 * Lays pages into the printer's tray, once, while the sheet that they were made from is still the same: with the programme held, as
 * by whoever erases somebody from it.
 *
 * @returns 0 when it is not, or when they lie there already
 */
export const addPrintOut = (
  db: Db,
  values: Omit<PrintOutRow, 'sessionId'> & { sessionId: string; revision: number; fingerprint: string },
) =>
  change(
    db,
    `INSERT IGNORE INTO print_out (id, programme_id, session_id, title, pages, pdf, at)
       SELECT :id, :programmeId, :sessionId, :title, :pages, :pdf, :at FROM kit_sheet
        WHERE session_id = :sessionId AND revision = :revision AND fingerprint = :fingerprint`,
    values,
  );

/** What an instrument shows. */
export const setReading = (db: Db, values: DeviceReadingRow) =>
  change(
    db,
    `INSERT INTO device_reading (programme_id, device, reading, at) VALUES (:programmeId, :device, :reading, :at)
       ON DUPLICATE KEY UPDATE reading = :reading, at = :at`,
    values,
  );
