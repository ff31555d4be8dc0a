/** Column types and endings that the migrations share. */
export const ID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL';
export const NULL_ID = ID.replace('NOT NULL', 'NULL');
export const HASH = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL';
export const TABLE_END = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci';

/** Foreign key of a column to a table's id. */
export const to = (column: string, table: string) => `FOREIGN KEY (${column}) REFERENCES ${table}(id)`;

/** A trigger that refuses to change or remove rows of a table, unless `except` holds; what is not known does not hold. */
export const refuse = (table: string, change: 'UPDATE' | 'DELETE', except = 'FALSE') =>
  `CREATE TRIGGER ${table}_no_${change.toLowerCase()} BEFORE ${change} ON ${table} FOR EACH ROW
   BEGIN
     IF NOT COALESCE(${except}, FALSE) THEN
       SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '${table} is append-only';
     END IF;
   END`;
