import { expect, type Page, test } from '@playwright/test';
import mysql from 'mysql2/promise';
import { Secret, TOTP } from 'otpauth';
import { linkSecret } from '../../src/services/gate/keys';
import { newSession, openSession, signIn } from './people';

/** The link in the newest message to an address, as the outbox on the Devices page shows it. */
async function linkTo(page: Page, email: string): Promise<string> {
  await page.goto('/devices');
  const outbox = page.getByRole('region', { name: 'Message gateway: the outbox' });
  const message = outbox.getByRole('listitem').filter({ hasText: email }).first();
  await expect(async () => {
    await page.reload();
    await expect(message).toContainText('put here', { timeout: 500 });
  }).toPass();
  await message.locator('summary').click();
  return /\/(?:reset|invite)\/[\w-]+/.exec((await message.textContent()) ?? '')?.[0] ?? '';
}

/** The link that went to an address: made again from the deployment's key, since nothing keeps it. */
async function linkSentTo(email: string): Promise<string> {
  const connection = await mysql.createConnection(process.env.DATABASE_URL ?? '');
  const [rows] = await connection.query<mysql.RowDataPacket[]>(
    "SELECT id FROM access_link WHERE email = ? AND purpose = 'reset' AND used_at IS NULL ORDER BY created_at DESC LIMIT 1",
    [email],
  );
  await connection.end();
  return `/reset/${linkSecret({ deploymentKey: process.env.SESSION_SECRET ?? '' }, rows[0]?.id)}`;
}

/** Invites somebody, as a coordinator who is signed in. @returns the link that goes to them */
async function invited(page: Page, email: string, role: string): Promise<string> {
  await page.goto('/people');
  const invite = page.getByRole('form', { name: 'Invite somebody' });
  await invite.getByLabel('E-mail').fill(email);
  await invite.getByLabel('Role').selectOption(role);
  await invite.getByRole('button', { name: 'Send invitation' }).click();
  await expect(page.getByText(`An invitation for ${email} lies in the outbox`)).toBeVisible();
  return linkTo(page, email);
}

test('an invited helper joins by link, meets only their duties, and is out as soon as removed', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const link = await invited(page, 'wim@orrinquay.example', 'instructor');

  const other = await browser.newPage();
  await other.goto(link);
  await other.getByLabel('Your name').fill('Wim Oar');
  await other.getByLabel('Password').fill('short');
  await other.getByRole('button', { name: 'Join' }).click();
  await expect(other.getByText('Guessed at once, 7 more characters')).toBeVisible();
  await expect(other.getByText('At least 12 characters: a few words are easy')).toBeVisible();
  await other.getByLabel('Password').fill('Password1234');
  await other.getByRole('button', { name: 'Join' }).click();
  await expect(other.getByText('among the passwords that are guessed first').first()).toBeVisible();
  await other.getByLabel('Password').fill('oars and onions');
  await other.getByRole('button', { name: 'Join' }).click();
  await expect(other.getByRole('heading', { name: 'Bench and class' })).toBeVisible();
  await expect(other.getByRole('link', { name: 'Recipes' })).toBeVisible();
  await expect(other.getByRole('link', { name: 'Courses' })).toHaveCount(0);
  for (const address of ['/people', '/families', '/devices', '/programme', '/courses']) {
    await other.goto(address);
    await expect(other.getByRole('heading', { name: 'This is not among your duties' })).toBeVisible();
  }
  await other.goto(link);
  await expect(other.getByRole('heading', { name: 'This link no longer works' })).toBeVisible();

  await page.goto('/people');
  await page.getByRole('button', { name: 'Remove Wim Oar' }).click();
  await expect(page.getByText('wim@orrinquay.example')).toHaveCount(0);
  await other.goto('/duties');
  await expect(other).toHaveURL(/sign-in/);
  await other.close();
});

test('a forgotten password is set anew by link, and every other browser is signed out', async ({ page, browser }) => {
  await signIn(page);
  const una = await browser.newPage();
  await una.goto(await invited(page, 'una@orrinquay.example', 'crew'));
  await una.getByLabel('Your name').fill('Una Skiff');
  await una.getByLabel('Password').fill('a first password');
  await una.getByRole('button', { name: 'Join' }).click();
  await expect(una.getByRole('heading', { name: 'Bench and class' })).toBeVisible();

  const forgetful = await browser.newPage();
  await forgetful.goto('/sign-in');
  await forgetful.getByRole('link', { name: 'Ask for a new password' }).click();
  await expect(forgetful.getByRole('heading', { name: 'Ask for a new password' })).toBeVisible();
  await forgetful.getByLabel('E-mail').fill('una@orrinquay.example');
  await forgetful.getByRole('button', { name: 'Send me a link' }).click();
  await expect(forgetful.getByText('If a member has this e-mail, a link is on its way')).toBeVisible();
  // The outbox shows that a message went, and not the link: it is for its owner alone.
  expect(await linkTo(page, 'una@orrinquay.example')).toBe('');
  await forgetful.goto(await linkSentTo('una@orrinquay.example'));
  await forgetful.getByRole('textbox', { name: 'New password' }).fill('a second password');
  await forgetful.getByRole('button', { name: 'Set the password' }).click();
  await expect(forgetful.getByRole('heading', { name: 'Bench and class' })).toBeVisible();
  await una.goto('/duties');
  await expect(una).toHaveURL(/sign-in/);

  // Signing out everywhere ends this browser too.
  await forgetful.goto('/account');
  await expect(forgetful.getByText('This browser')).toBeVisible();
  await forgetful.getByRole('button', { name: 'Sign out everywhere' }).click();
  await expect(forgetful).toHaveURL(/sign-in/);
  await forgetful.goto('/duties');
  await expect(forgetful).toHaveURL(/sign-in/);
  await una.close();
  await forgetful.close();
});

test('guessing a password is stopped, with how long to wait', async ({ page }) => {
  for (let guess = 0; guess < 9; guess++) {
    await page.goto('/sign-in');
    await page.getByLabel('E-mail').fill('guessed@orrinquay.example');
    await page.getByLabel('Password').fill(`guess ${guess}`);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.locator('main').getByRole('alert')).toBeVisible();
  }
  await expect(page.locator('main').getByRole('alert')).toContainText(/Too many attempts. Wait 1[45] minutes/);
});

test('what a cookie can do, another site’s page cannot', async ({ page, baseURL }) => {
  await signIn(page);
  const id = '01936f00-0000-7000-8000-000000000000';
  const elsewhere = { origin: 'https://elsewhere.example' };
  const writes: [string, 'post' | 'put' | 'delete'][] = [
    ['/api/v1/courses', 'post'],
    [`/api/v1/sessions/${id}`, 'put'],
    [`/api/v1/sessions/${id}/dishes/${id}`, 'delete'],
    [`/api/bench/${id}/ticks`, 'post'],
    [`/api/jobs/${id}`, 'delete'],
    [`/api/roll/preview?course=${id}`, 'post'],
    ['/api/recipes/preview', 'post'],
  ];
  for (const [address, method] of writes) {
    for (const headers of [elsewhere, { origin: 'null' }, { 'sec-fetch-site': 'cross-site' }]) {
      const answer = await page.request[method](address, { headers, data: { title: 'Planted' } });
      expect(answer.status(), `${method} ${address} ${JSON.stringify(headers)}`).toBe(403);
    }
  }
  // A form of the desk, sent as another site's page would send it.
  await page.goto('/courses');
  const [request] = await Promise.all([
    page.waitForRequest((sent) => sent.method() === 'POST'),
    (async () => {
      const form = page.getByRole('form', { name: 'Add a course' });
      await form.getByLabel('Title').fill('Honest course');
      await form.getByRole('button', { name: 'Add course' }).click();
    })(),
  ]);
  const { host: _host, 'content-length': _length, ...headers } = await request.allHeaders();
  const forged = await page.request.post(request.url(), {
    headers: { ...Object.fromEntries(Object.entries(headers).filter(([name]) => !name.startsWith(':'))), ...elsewhere },
    data: (request.postData() ?? '').replace('Honest', 'Planted'),
  });
  expect(forged.ok()).toBe(false);
  const courses = await (await page.request.get('/api/v1/courses?limit=200')).json();
  const titles = courses.items.map(({ title }: { title: string }) => title);
  expect(titles).toContain('Honest course');
  expect(titles.join()).not.toContain('Planted');
  expect(baseURL).toBeTruthy();
});

test('every answer says what the browser may do; scripts run only with the nonce of their own answer', async ({
  page,
}) => {
  const policies = new Set<string>();
  for (const address of ['/sign-in', '/sign-in', '/api/health', '/nowhere']) {
    const { headers } = { headers: (await page.request.get(address)).headers() };
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'x-frame-options': 'DENY' });
    expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic';/);
    policies.add(headers['content-security-policy'] ?? '');
  }
  expect(policies.size).toBe(4);
  const refused: string[] = [];
  page.on('console', (message) => {
    if (/Content Security Policy/.test(message.text())) refused.push(message.text());
  });
  await signIn(page);
  await page.goto((await openSession(page, 'Breads from the pan')).replace('/sessions', '/bench'));
  await expect(page.getByText('live', { exact: true })).toBeVisible();
  expect(refused).toEqual([]);
  await page.evaluate(() => {
    const script = document.createElement('div');
    script.innerHTML = '<img src="x" onerror="document.title = \'run\'">';
    document.body.append(script);
  });
  await expect.poll(() => refused.length).toBeGreaterThan(0);
  expect(await page.title()).not.toBe('run');
});

test('families’ data: looked at by those in the room, taken out, and erased for good', async ({ page, browser }) => {
  await signIn(page);
  const { course, session } = await newSession(
    page,
    'Erasing',
    ['Slipway slaw'],
    'name,servings,avoids,household,address,plan\nPia Quill,1,mustard,Quillfeather,9 Eel Lane,Pen in the red bag\nRolf,1,,,,\n',
  );
  await page.goto(`${session}/kits`);
  const left = page.getByRole('button', { name: 'Lock kit sheet' });
  if ((await left.count()) > 0) await left.click();
  await page.goto(session.replace('/sessions', '/room'));
  await expect(page.getByText('Pen in the red bag')).toBeVisible();
  await expect(page.getByText('9 Eel Lane')).toHaveCount(0);
  // The class is five days off: crew has no duty in its room yet.
  const crew = await browser.newPage();
  await signIn(crew, 'crew');
  await crew.goto(session.replace('/sessions', '/room'));
  await expect(crew.getByText('Pen in the red bag')).toHaveCount(0);
  await crew.close();

  await page.goto('/families?q=quillfeather');
  await expect(page.getByText('Marit Solway, room').first()).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save what is held about Quillfeather as a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^household-/);
  await page.getByLabel('Erase Quillfeather').click();
  await page.getByRole('button', { name: 'Erase Quillfeather' }).click();
  await expect(page.getByText('Quillfeather')).toHaveCount(0);
  await page.goto(`${course}/roll?show=all`);
  await expect(page.getByRole('rowheader', { name: 'Rolf' })).toBeVisible();
  await expect(page.getByText('Pia Quill')).toHaveCount(0);
});

test('a second step is set up, asked for, and the password asked again before a door is opened', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const lena = await browser.newPage();
  await lena.goto(await invited(page, 'lena@orrinquay.example', 'coordinator'));
  await lena.getByLabel('Your name').fill('Lena Rill');
  await lena.getByLabel('Password').fill('nets in the morning');
  await lena.getByRole('button', { name: 'Join' }).click();
  await expect(lena.getByRole('heading', { name: 'Countdown' })).toBeVisible();

  await lena.goto('/second-step');
  const secret = ((await lena.locator('code').first().textContent()) ?? '').replace(/\s/g, '');
  const totp = new TOTP({ secret: Secret.fromBase32(secret) });
  const code = lena.getByRole('textbox', { name: 'Code' });
  await code.fill('000000');
  await lena.getByRole('button', { name: 'Turn it on' }).click();
  await expect(lena.getByText('This code does not fit').first()).toBeVisible();
  await code.fill(totp.generate());
  await lena.getByRole('button', { name: 'Turn it on' }).click();
  await expect(lena.getByText('Keep these recovery codes')).toBeVisible();
  const [recovery = ''] = ((await lena.locator('code').last().textContent()) ?? '').split(' ');

  await lena.getByRole('link', { name: 'Back' }).click();
  await lena.getByRole('banner').getByRole('button', { name: 'Sign out' }).click();
  await lena.getByLabel('E-mail').fill('lena@orrinquay.example');
  await lena.getByLabel('Password').fill('nets in the morning');
  await lena.getByRole('button', { name: 'Sign in' }).click();
  await expect(lena.getByRole('heading', { name: 'The code beside the password' })).toBeVisible();
  // The password alone opens nothing.
  await lena.goto('/people');
  await expect(lena).toHaveURL(/sign-in\/code/);
  await code.fill(recovery);
  await lena.getByRole('button', { name: 'Go on' }).click();
  await expect(lena.getByRole('heading', { name: 'Countdown' })).toBeVisible();

  const connection = await mysql.createConnection(process.env.DATABASE_URL ?? '');
  await connection.query(
    "UPDATE sign_in SET proven_at = proven_at - INTERVAL 1 HOUR WHERE member_id IN (SELECT id FROM member WHERE email = 'lena@orrinquay.example')",
  );
  await connection.end();
  await lena.goto('/people');
  await lena.getByLabel('What it is for').fill('the till');
  await lena.getByRole('button', { name: 'Make token' }).click();
  await lena.getByLabel('Your password').fill('a guess');
  await lena.getByRole('button', { name: 'Go on' }).click();
  await expect(lena.getByText('This is not your password.')).toBeVisible();
  await lena.getByLabel('Your password').fill('nets in the morning');
  await lena.getByRole('button', { name: 'Go on' }).click();
  await expect(lena.getByText('Keep it now, it is not shown again')).toBeVisible();
  await lena.close();
});
