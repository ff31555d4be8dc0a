import type { Migration } from './migration';
import { ID, NULL_ID, refuse, TABLE_END, to } from './sql';

const JSON_TEXT = (column: string) => `${column} LONGTEXT NOT NULL CHECK (JSON_VALID(${column}))`;
const MADE = `at DATETIME(3) NOT NULL, actor_id ${ID}`;
const OF_PROGRAMME = `id ${ID} PRIMARY KEY, programme_id ${ID}`;
const IN_PROGRAMME = to('programme_id', 'programme');
const LOGS = ['shelf_price', 'stock_move', 'trip_event'];

/** Shops and their prices, what stands on the shelves and what happened to it, plans of what to buy, and trips. */
export const buying: Migration = {
  name: '0016-buying',
  async up(run) {
    await run(
      `CREATE TABLE shop (${OF_PROGRAMME}, name VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, ${JSON_TEXT('aisles')}, ${JSON_TEXT('weekdays')},
       trip_cost INT NOT NULL, version INT NOT NULL, UNIQUE KEY one_name (programme_id, name), ${IN_PROGRAMME}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE shelf_price (${OF_PROGRAMME}, shop_id ${ID}, product_id ${ID}, sold_by VARCHAR(20) NOT NULL, price INT NULL,
       from_day DATE NULL, to_day DATE NULL, least INT NOT NULL, source VARCHAR(20) NOT NULL, ${MADE},
       KEY by_product (programme_id, product_id, at), ${IN_PROGRAMME}, ${to('shop_id', 'shop')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE trip (${OF_PROGRAMME}, shop_id ${ID}, day DATE NOT NULL, state VARCHAR(20) NOT NULL, paid INT NULL,
       payer VARCHAR(120) NOT NULL, seq INT NOT NULL, ${MADE}, UNIQUE KEY one_visit (programme_id, shop_id, day),
       ${IN_PROGRAMME}, ${to('shop_id', 'shop')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE trip_line (${OF_PROGRAMME}, trip_id ${ID}, product_id ${ID}, position INT NOT NULL, ${JSON_TEXT('body')},
       KEY by_trip (trip_id, position), ${IN_PROGRAMME}, ${to('trip_id', 'trip')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE trip_event (${OF_PROGRAMME}, trip_id ${ID}, line_id ${ID}, seq INT NOT NULL, ${JSON_TEXT('answer')}, ${MADE},
       UNIQUE KEY one_order (trip_id, seq), ${IN_PROGRAMME}, ${to('trip_id', 'trip')}, ${to('line_id', 'trip_line')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE stock_lot (${OF_PROGRAMME}, ingredient VARCHAR(80) NOT NULL, product_id ${NULL_ID}, name VARCHAR(120) NOT NULL,
       pack_grams INT NULL, place_id ${NULL_ID}, storage VARCHAR(20) NOT NULL, last_day DATE NOT NULL, last_kind VARCHAR(20) NOT NULL,
       origin VARCHAR(20) NOT NULL, allergens LONGTEXT NULL CHECK (JSON_VALID(allergens)), price INT NULL, trip_id ${NULL_ID}, ${MADE},
       KEY by_programme (programme_id, last_day), ${IN_PROGRAMME}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE stock_move (${OF_PROGRAMME}, lot_id ${ID}, seq INT NOT NULL, kind VARCHAR(20) NOT NULL, packs INT NOT NULL,
       grams INT NOT NULL, day DATE NOT NULL, storage VARCHAR(20) NULL, place_id ${NULL_ID}, reason VARCHAR(255) NOT NULL,
       session_id ${NULL_ID}, ${MADE}, UNIQUE KEY one_order (lot_id, seq), KEY by_programme (programme_id, lot_id, seq),
       ${IN_PROGRAMME}, ${to('lot_id', 'stock_lot')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE refused_gift (${OF_PROGRAMME}, name VARCHAR(120) NOT NULL, ${JSON_TEXT('reasons')}, ${MADE},
       KEY by_programme (programme_id, at), ${IN_PROGRAMME}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE buying_plan (${OF_PROGRAMME}, to_day DATE NOT NULL, ${JSON_TEXT('wishes')}, ${JSON_TEXT('sessions')},
       ${JSON_TEXT('needs')}, ${JSON_TEXT('planned')}, ${MADE}, version INT NOT NULL, UNIQUE KEY one_plan (programme_id),
       ${IN_PROGRAMME}) ${TABLE_END}`,
    );
    for (const name of LOGS) for (const change of ['UPDATE', 'DELETE'] as const) await run(refuse(name, change));
  },
  async down(run) {
    const tables = [
      'buying_plan',
      'refused_gift',
      'stock_move',
      'stock_lot',
      'trip_event',
      'trip_line',
      'trip',
      'shelf_price',
      'shop',
    ];
    for (const name of tables) await run(`DROP TABLE IF EXISTS ${name}`);
  },
};
