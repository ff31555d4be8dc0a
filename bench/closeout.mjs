// Figures of looking back in the running program: the page of lessons with 2,000 closed sessions, a report of 720 of them.
import { randomUUID } from 'node:crypto';
import mysql from 'mysql2/promise';

const DAY = 86_400_000;
const day = (ago) => new Date(Date.now() - ago * DAY).toISOString().slice(0, 10);

/** Puts 60 courses of 20 people into the database: 12 sessions each within the year with all who came, and older ones up to 2,000. */
async function fill(db) {
  const [[{ id: programmeId }]] = await db.query('SELECT id FROM programme LIMIT 1');
  const [[{ id: actor }]] = await db.query("SELECT id FROM member WHERE role = 'coordinator' LIMIT 1");
  const [recipes] = await db.query('SELECT id, body FROM recipe');
  const [[course]] = await db.query('SELECT * FROM course LIMIT 1');
  const [[session]] = await db.query('SELECT * FROM session LIMIT 1');
  const [[household]] = await db.query('SELECT * FROM household LIMIT 1');
  const [[person]] = await db.query('SELECT * FROM enrolment LIMIT 1');
  const rows = { course: [], household: [], enrolment: [], session: [], dish: [], attendance: [], close_note: [] };
  const note = (sessionId, what, item, percent, at) =>
    rows.close_note.push({
      id: randomUUID(),
      session_id: sessionId,
      what,
      item,
      percent,
      bad: null,
      pieces: null,
      words: '',
      at,
      actor_id: actor,
    });
  for (let n = 0; n < 60; n++) {
    const courseId = randomUUID();
    rows.course.push({ ...course, id: courseId, programme_id: programmeId, title: `Past course ${n}` });
    const people = Array.from({ length: 20 }, (_, at) => {
      const home = { ...household, id: randomUUID(), programme_id: programmeId, name: `Home ${n} ${at}` };
      rows.household.push(home);
      const own = {
        ...person,
        id: randomUUID(),
        course_id: courseId,
        household_id: home.id,
        name: `Person ${n} ${at}`,
        group_id: null,
      };
      rows.enrolment.push(own);
      return own.id;
    });
    for (let s = 0; s < 34; s++) {
      const ago = s < 12 ? 20 + s * 25 : 400 + s * 10;
      const id = randomUUID();
      const at = new Date(Date.now() - ago * DAY);
      rows.session.push({
        ...session,
        id,
        course_id: courseId,
        number: s + 1,
        title: `Past ${n} ${s}`,
        date: day(ago),
        status: 'planned',
        place_id: null,
      });
      const recipe = recipes[(n + s) % recipes.length];
      rows.dish.push({ id: randomUUID(), session_id: id, recipe_id: recipe.id });
      if (s < 12)
        for (const [p, enrolmentId] of people.entries())
          rows.attendance.push({
            id: randomUUID(),
            session_id: id,
            enrolment_id: enrolmentId,
            state: (p + s) % 5 ? 'came' : 'absent',
            at,
            actor_id: actor,
          });
      const foods = (typeof recipe.body === 'string' ? JSON.parse(recipe.body) : recipe.body).lines.map(
        ({ ingredient }) => ingredient,
      );
      for (const [f, food] of foods.entries()) note(id, 'left', food, (n + s + f) % 4 ? 0 : 25, at);
      note(id, 'closed', '', null, at);
    }
  }
  const [[dish]] = await db.query('SELECT * FROM dish LIMIT 1');
  rows.dish = rows.dish.map((own) => ({ ...dish, ...own }));
  for (const [table, all] of Object.entries(rows))
    for (let from = 0; from < all.length; from += 500) {
      const part = all.slice(from, from + 500);
      const columns = Object.keys(part[0]);
      const values = part.map((row) =>
        columns.map((column) => {
          const value = row[column];
          return value !== null && typeof value === 'object' && !(value instanceof Date) && !Buffer.isBuffer(value)
            ? JSON.stringify(value)
            : value;
        }),
      );
      await db.query(`INSERT INTO ${table} (${columns.join(', ')}) VALUES ?`, [values]);
    }
  return { sessions: rows.session.length, notes: rows.close_note.length, marks: rows.attendance.length };
}

export async function lookingBack(running, { say, timed, read }) {
  const db = await mysql.createConnection(running.url);
  const made = await fill(db);
  await db.end();
  const page = async (path, title, goal, times) => {
    for (let n = 0; n < 10; n++) await read(path);
    const spent = [];
    for (let n = 0; n < times; n++) spent.push(await timed(() => read(path)));
    say(title, spent, goal);
  };
  await page(
    '/lessons',
    `Lessons of ${made.sessions} closed sessions with ${made.notes} notes`,
    'goal: at most 200 ms',
    60,
  );
  await page('/reports', `A report of 720 sessions with ${made.marks} marks`, 'goal: at most 1 s', 30);
  const [{ id }] = (await running.api('GET', '/courses?limit=200')).items.filter(
    ({ title }) => title === 'Past course 1',
  );
  await page(
    `/reports?courseId=${id}`,
    'A report page of a course of 34 sessions',
    'goal: p95 at most 150 ms over 100 requests',
    100,
  );
}
