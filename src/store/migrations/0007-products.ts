import type { Migration } from './migration';
import { ID, NULL_ID, TABLE_END, to } from './sql';

export const products: Migration = {
  name: '0007-products',
  async up(run) {
    await run(
      `CREATE TABLE product (id ${ID} PRIMARY KEY, programme_id ${ID}, ingredient VARCHAR(80) NOT NULL, name VARCHAR(120) NOT NULL,
       pack_grams VARCHAR(20) NOT NULL, price INT NULL, allergens LONGTEXT NULL, salt_mg INT NULL, energy_kj INT NULL,
       read_at DATETIME(3) NULL, read_by ${NULL_ID}, version INT NOT NULL,
       UNIQUE KEY one_name (programme_id, ingredient, name), ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE keeping_limit (programme_id ${ID}, ingredient VARCHAR(80) NOT NULL, days_whole INT NULL, days_opened INT NULL,
       PRIMARY KEY (programme_id, ingredient), ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
  },
  async down(run) {
    await run('DROP TABLE IF EXISTS keeping_limit');
    await run('DROP TABLE IF EXISTS product');
  },
};
