// Whether a node of the database is well. Stands alone, so that it can be put beside a node by itself.
import mysql from 'mysql2/promise';

/** Whether a node is one of the majority, level with it, and takes writes. Waits at most a second for it to say so. */
export async function isLevel({ port, password, user = 'logistra', host = '127.0.0.1' }) {
  const connection = await mysql.createConnection({ host, port, user, password, connectTimeout: 1000 });
  // A node that hangs hears nothing: the connection is ended from here.
  const late = setTimeout(() => connection.destroy(), 1000);
  try {
    const [rows] = await connection.query(
      "SHOW GLOBAL STATUS WHERE Variable_name IN ('wsrep_ready', 'wsrep_local_state', 'wsrep_cluster_status')",
    );
    const said = Object.fromEntries(rows.map((row) => [row.Variable_name, row.Value]));
    const [[{ closed }]] = await connection.query('SELECT @@GLOBAL.read_only AS closed');
    return (
      said.wsrep_ready === 'ON' &&
      said.wsrep_local_state === '4' &&
      said.wsrep_cluster_status === 'Primary' &&
      closed === 0
    );
  } finally {
    clearTimeout(late);
    connection.destroy();
  }
}
