import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, type Response, test } from '@playwright/test';
import { openPast, openSession, signIn, signInAfresh } from './people';

/** The class of the demo that is in full swing, or another. */
const classOf = async (page: Page, at: string, title = 'Omelettes and slaw') =>
  (await openSession(page, title)).replace('/sessions', at);

/** Every screen there is, by how one gets there. */
const SCREENS: Record<string, (page: Page) => Promise<unknown>> = {
  countdown: (page) => page.goto('/'),
  courses: (page) => page.goto('/courses'),
  course: async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Supper Bags' }).first().click();
    await expect(page.getByRole('heading', { name: 'Add a session' })).toBeVisible();
  },
  'course with groups': async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Galley on Screen', exact: true }).click();
    await expect(page.getByRole('form', { name: 'Add a group' })).toBeVisible();
  },
  season: async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Galley on Screen', exact: true }).click();
    await page.getByRole('link', { name: 'Plan a season' }).click();
    await expect(page.getByRole('heading', { name: /sessions/ })).toBeVisible();
  },
  'place in the week': async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Galley on Screen', exact: true }).click();
    await page.getByRole('link', { name: 'Find a place in the week' }).click();
    await expect(page.getByRole('region', { name: 'Place 1' })).toBeVisible();
  },
  calendar: (page) => page.goto('/calendar'),
  'moving a session': async (page) => {
    await page.goto('/calendar');
    await page.getByRole('button', { name: 'Move Tasting evening' }).click();
    await expect(page.getByText('This would work:')).toBeVisible();
  },
  places: (page) => page.goto('/places'),
  closures: (page) => page.goto('/closures'),
  'calendar import': (page) => page.goto('/closures/import'),
  'calendar addresses': (page) => page.goto('/calendar-addresses'),
  jobs: (page) => openSession(page, 'Pots for the freezer', '/countdown'),
  'week sheet': (page) => page.goto('/week-sheet'),
  roll: async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Roll of Galley on Screen' }).click();
    await expect(page.getByRole('heading', { name: /Roll of/ })).toBeVisible();
  },
  'session plan': (page) => openSession(page, 'Fritters and slaw'),
  'refused kits': (page) => openSession(page, 'Fritters and slaw', '/kits'),
  'locked kit sheet': (page) => openSession(page, 'Breads from the pan', '/kits'),
  differences: (page) => openSession(page, 'Lighthouse pasta', '/kits'),
  'the working of a number': (page) => openSession(page, 'Breads from the pan', '/kits?working=A.0'),
  'kit sheet of every kind of component': (page) => openSession(page, 'Stew and salad', '/kits'),
  'how a dish travels': async (page) => {
    await openSession(page, 'Stew and salad');
    await page.getByText('How it travels and how many it serves').last().click();
  },
  'what I have': (page) => openSession(page, 'Stew and salad', '/kits/stock?have+onion=3&have+grapes=lots'),
  'prep list': async (page) => {
    await openSession(page, 'Stew and salad', '/kits');
    await page.getByRole('link', { name: 'Prep list' }).click();
    await expect(page.getByRole('heading', { name: 'Vegetables and fruit' })).toBeVisible();
  },
  'kits not fetched': (page) => openPast(page, 'Fathom Suppers', 'Stew night', '/not-fetched'),
  supplies: async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Fathom Suppers' }).first().click();
    await page.getByRole('link', { name: 'Supplies' }).click();
    await expect(page.getByRole('heading', { name: 'Issued once' })).toBeVisible();
  },
  household: async (page) => {
    await page.goto('/families?q=bracken');
    await page.getByRole('link', { name: 'Household Bracken', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'At home' })).toBeVisible();
  },
  'shopping list': (page) => openSession(page, 'Lighthouse pasta', '/buying'),
  crew: (page) => page.goto('/crew'),
  'somebody of the crew': async (page) => {
    await page.goto('/crew');
    await page.getByRole('link', { name: 'Ines Marlow' }).click();
    await page.getByRole('heading', { name: 'Sickness' }).waitFor();
  },
  roster: (page) => page.goto('/crew/roster'),
  'roster as a table': (page) => page.goto('/crew/roster/table'),
  'hours of the crew': (page) => page.goto('/crew/hours'),
  'crew of a session': async (page) => {
    await page.goto('/crew/roster');
    await page.getByRole('link', { name: 'Small Hands Kitchen: Breads from the pan' }).click();
    await expect(page.getByRole('heading', { name: 'Duties' })).toBeVisible();
  },
  'a duty': async (page) => {
    await page.goto('/crew/roster');
    await page.getByRole('link', { name: 'Stand at the heat' }).first().click();
    await expect(page.getByRole('heading', { name: 'By hand' })).toBeVisible();
  },
  'lead’s sheet': async (page) => {
    await page.goto('/crew/roster');
    await page.getByRole('link', { name: 'Small Hands Kitchen: Breads from the pan' }).click();
    await expect(page.getByRole('heading', { name: 'Breads from the pan: crew' })).toBeVisible();
    await page.getByRole('link', { name: 'Lead’s sheet' }).click();
    await expect(page.getByRole('table')).toBeVisible();
  },
  'at the door': async (page) => {
    await page.goto('/crew/roster');
    await page.getByRole('link', { name: 'Small Hands Kitchen: Breads from the pan' }).click();
    await expect(page.getByRole('heading', { name: 'Breads from the pan: crew' })).toBeVisible();
    await page.getByRole('link', { name: 'At the door', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'At the door' })).toBeVisible();
  },
  'my duties': (page) => page.goto('/my'),
  'a page of one’s own': async (page) => {
    await page.goto('/crew');
    await page.getByRole('link', { name: 'Runa Castell' }).click();
    await page.getByRole('button', { name: 'Show the link' }).click();
    await page.goto(new URL((await page.locator('code').first().textContent()) ?? '').pathname);
  },
  buying: (page) => page.goto('/buying'),
  'open choices': (page) => page.goto('/buying/choices'),
  'came short': async (page) => {
    await page.goto('/buying');
    await page.getByRole('link', { name: 'See what would mend it' }).first().click();
    await page.waitForURL(/\/short$/);
  },
  'price book': (page) => page.goto('/buying/prices'),
  'nothing lost': (page) => page.goto('/buying/lost'),
  shelves: async (page) => {
    await page.goto('/shelves');
    await page
      .getByRole('link', { name: /^What happened to/ })
      .first()
      .click();
    await page.getByRole('form', { name: /^What happened to/ }).waitFor();
  },
  'put on a shelf': (page) => page.goto('/shelves/new'),
  'counting a shelf': (page) => page.goto('/shelves/count'),
  'taking a gift': (page) => page.goto('/shelves/gift'),
  trips: (page) => page.goto('/trips'),
  'a trip': async (page) => {
    await page.goto('/trips');
    await page
      .getByRole('link', { name: /^Open the list/ })
      .first()
      .click();
    await page.waitForURL(/\/trips\/.+/);
    await page.getByRole('button', { name: 'Something else' }).first().click();
  },
  'checking in': async (page) => {
    await page.goto('/trips');
    await page
      .getByRole('link', { name: /^Check in/ })
      .first()
      .click();
    await page.waitForURL(/\/receive/);
  },
  packing: (page) => openSession(page, 'Breads from the pan', '/packing'),
  'run sheet': async (page) =>
    page.goto(`${(await openSession(page, 'Breads from the pan')).replace('/sessions', '/room')}/run-sheet`),
  'hand-out': (page) => openSession(page, 'Soup bags', '/handout'),
  'doors and rounds': (page) => openSession(page, 'Curry on screen', '/doors'),
  'hand-out table': async (page) => page.goto((await openSession(page, 'Soup bags')).replace('/sessions', '/table')),
  'made ahead': async (page) => page.goto((await openSession(page, 'Parcels together')).replace('/sessions', '/made')),
  temperatures: (page) => page.goto('/temperatures'),
  'a failed fridge': (page) => page.goto('/cold-failed?storage=fridge&hours=5&degrees=60'),
  'prep plan': async (page) => {
    await openSession(page, 'Breads from the pan', '/packing');
    await page.getByRole('link', { name: 'Prep', exact: true }).click();
    await page.getByRole('link', { name: 'Plan for the hands there are' }).click();
    await page.waitForURL(/\/plan/);
  },
  recipes: (page) => page.goto('/recipes'),
  recipe: async (page) => {
    await page.goto('/recipes');
    await page.getByRole('link', { name: 'Harbour lentil pot' }).click();
    await expect(page.getByRole('heading', { name: 'Ingredients' })).toBeVisible();
  },
  'family card': async (page) => {
    await page.goto('/recipes');
    await page.getByRole('link', { name: 'Griddle flatbreads' }).click();
    await page.getByRole('link', { name: 'Family card' }).click();
    await expect(page.getByRole('heading', { name: 'You need' })).toBeVisible();
  },
  'recipe coming in': async (page) => {
    await page.goto('/recipes/import');
    await page
      .getByLabel('Paste a recipe')
      .fill('Cake\nServes 8\nIngredients\n21/2 cups flour\n1 cup moon dust\n1 cup salt');
    await page.getByRole('button', { name: 'Read recipe' }).click();
    await expect(page.getByRole('list', { name: 'What smells like a slip' })).toBeVisible();
    await page.getByText('Add “moon dust” to the table').click();
  },
  'recipe editor': async (page) => {
    await page.goto('/recipes');
    await page.getByRole('link', { name: 'Griddle flatbreads' }).click();
    await page.getByRole('link', { name: 'Edit', exact: true }).click();
    await page.getByText('Scaling, measuring, buying, replacing').first().click();
  },
  'recipe steps': async (page) => {
    await page.goto('/recipes');
    await page.getByRole('link', { name: 'Cove chickpea curry' }).click();
    await page.getByRole('link', { name: 'Plan its steps' }).click();
    await page.getByText('Settle it').first().click();
  },
  'dishes for a course': async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Small Hands Kitchen' }).first().click();
    await page.getByRole('link', { name: 'Choose dishes' }).click();
    await page.getByText('The same in numbers').click();
  },
  'reference table': (page) => page.goto('/reference?food=onion&add=samphire'),
  programme: (page) => page.goto('/programme'),
  'setting up': (page) => page.goto('/start?country=US'),
  people: (page) => page.goto('/people'),
  account: (page) => page.goto('/account'),
  'families’ data': (page) => page.goto('/families'),
  devices: (page) => page.goto('/devices'),
  'class that runs': async (page) => page.goto(await classOf(page, '/live')),
  'class on a wall': async (page) => page.goto(`${await classOf(page, '/live')}?wall=1`),
  'class: what is wrong': async (page) => {
    await page.goto(await classOf(page, '/live'));
    await page.getByRole('tab', { name: 'Trouble' }).click();
  },
  'class on screen': async (page) => {
    await page.goto(await classOf(page, '/live', 'Curry on screen'));
    await page.getByRole('tab', { name: 'On screen' }).click();
  },
  'station cards': async (page) => page.goto(`${await classOf(page, '/room')}/run-sheet/cards`),
  'close out': async (page) => page.goto(`${await classOf(page, '/room')}/close`),
  lessons: (page) => page.goto('/lessons'),
  words: (page) => page.goto('/words'),
  'guide for packers': (page) => page.goto('/guide'),
  'going to anything': async (page) => {
    await page.goto('/words');
    await page.getByRole('button', { name: 'Go to' }).click();
    await expect(page.getByRole('option', { name: 'Countdown' })).toBeVisible();
  },
  report: (page) => page.goto('/reports'),
  'who is reported to': (page) => page.goto('/reports/funders/new'),
  'working of a figure': async (page) => {
    await page.goto('/reports');
    await page.getByRole('link', { name: /the working of Attendance/ }).click();
    await expect(page.getByRole('columnheader', { name: 'Noted' })).toBeVisible();
  },
  'looking back': async (page) => {
    await page.goto('/courses');
    await page.getByRole('link', { name: 'Autumn Sprats', exact: true }).click();
    await page.getByRole('link', { name: 'Look back' }).click();
    await expect(page.getByRole('heading', { name: 'Keep' })).toBeVisible();
  },
  'record of a family': async (page) => {
    await page.goto('/families?q=bracken');
    await page.getByRole('link', { name: 'Household Bracken', exact: true }).click();
    await page.getByRole('link', { name: 'Their record' }).click();
    await expect(page.getByRole('heading', { name: 'Record: Household Bracken' })).toBeVisible();
  },
  'record of a class': async (page) => page.goto(`${await classOf(page, '/room')}/record`),
  'hurt or unwell': async (page) => page.goto(`${await classOf(page, '/room')}/hurt`),
  incidents: async (page) => page.goto(`${await classOf(page, '/room')}/incidents`),
  tasting: async (page) => page.goto(`${await classOf(page, '/room')}/tasting`),
  'ran short': async (page) => page.goto(`${await classOf(page, '/room')}/troubles`),
  'homes on screen': async (page) => page.goto(`${await classOf(page, '/room', 'Curry on screen')}/on-screen`),
  'cooked at home': (page) => openSession(page, 'Cold cups', '/lesson'),
  'in the room': async (page) =>
    page.goto((await openSession(page, 'Breads from the pan')).replace('/sessions', '/room')),
  attendance: async (page) =>
    page.goto(`${(await openSession(page, 'Breads from the pan')).replace('/sessions', '/room')}/attendance`),
  session: async (page) => {
    await openSession(page, 'Tasting evening');
    await page.getByText('What these cost here').click();
  },
  'called back': async (page) =>
    page.goto((await openSession(page, 'Lighthouse pasta')).replace('/sessions', '/bench')),
  duties: (page) => page.goto('/duties'),
  'a city': async (page) => {
    await signInAfresh(page, 'city');
    await expect(page.getByRole('heading', { name: 'Worth a question' })).toBeVisible();
  },
  installation: async (page) => {
    await signInAfresh(page, 'installation');
    await expect(page.getByRole('heading', { name: /All is well|To be looked at/ })).toBeVisible();
  },
  bench: async (page) => page.goto((await openSession(page, 'Breads from the pan')).replace('/sessions', '/bench')),
};

/** Puts a theme on the whole page, the bench's frame too. */
function wear(theme: string): void {
  for (const frame of document.querySelectorAll<HTMLElement>('[data-theme]')) {
    frame.dataset.worn ??= frame.dataset.theme ?? '';
    frame.dataset.theme = theme;
  }
}

/** What axe finds wrong, and nothing else of it. Nothing here comes from another site: it need not look through a page of its own. */
async function wrongOn(page: Page, look: (axe: AxeBuilder) => AxeBuilder): Promise<string[]> {
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'], preload: false }).setLegacyMode();
  const { violations } = await look(axe).analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.target.join(' ')).join(' | ')}`);
}

/** Bytes of script that a page asks for when nothing of it is known yet. */
async function scriptBytes(page: Page): Promise<number> {
  const client = await page.context().newCDPSession(page);
  await client.send('Network.enable');
  await client.send('Network.setCacheDisabled', { cacheDisabled: true });
  // What a page keeps on the device is no answer of the server's.
  await client.send('Network.setBypassServiceWorker', { bypass: true });
  const sizes: Promise<number>[] = [];
  const count = (response: Response) => {
    if (response.request().resourceType() !== 'script') return;
    sizes.push(
      response
        .finished()
        .then(() => response.request().sizes())
        .then(({ responseBodySize }) => responseBodySize),
    );
  };
  page.on('response', count);
  await page.reload({ waitUntil: 'networkidle' });
  page.off('response', count);
  await client.detach();
  return (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
}

for (const [name, open] of Object.entries(SCREENS)) {
  test(`${name}: nothing that axe finds wrong in both themes, no sideways scrolling, at a desk and on a phone; little script`, async ({
    page,
  }) => {
    await signIn(page);
    await open(page);
    // The width changes nothing but the layout: what was opened stays so.
    for (const size of [
      { width: 1280, height: 800 },
      { width: 390, height: 844 },
    ]) {
      await page.setViewportSize(size);
      await page.evaluate(() => {
        for (const frame of document.querySelectorAll<HTMLElement>('[data-theme]'))
          frame.setAttribute('data-theme', frame.dataset.worn ?? frame.dataset.theme ?? '');
      });
      const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect(overflow, `${size.width} px`).toBeLessThanOrEqual(0);
      const all = await wrongOn(page, (axe) => axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']));
      expect(all, `as it is, ${size.width} px`).toEqual([]);
      // A theme changes colours alone: for all else one look is enough.
      const worn = await page.evaluate(() =>
        [...document.querySelectorAll('[data-theme]')].map((frame) => frame.getAttribute('data-theme')),
      );
      for (const theme of ['desk', 'bench']) {
        if (worn.every((each) => each === theme)) continue;
        await page.evaluate(wear, theme);
        const contrast = await wrongOn(page, (axe) => axe.withRules(['color-contrast']));
        expect(contrast, `${theme}, ${size.width} px`).toEqual([]);
      }
    }
    const bytes = await scriptBytes(page);
    expect(bytes).toBeGreaterThan(100_000);
    expect(bytes).toBeLessThan(220_000);
  });
}

test('sign-in: nothing that axe finds wrong', async ({ page }) => {
  await page.goto('/sign-in');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});

test('targets at the bench are large enough for wet hands', async ({ page }) => {
  await signIn(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto((await openSession(page, 'Breads from the pan')).replace('/sessions', '/bench'));
  for (const button of await page.getByRole('button').all()) {
    if (!(await button.isVisible())) continue;
    const box = await button.boundingBox();
    expect(box?.height).toBeGreaterThanOrEqual(44);
    expect(box?.width).toBeGreaterThanOrEqual(44);
  }
});

test.describe('on paper', () => {
  const printable: [string, string][] = [
    ['Lighthouse pasta', '/kits'],
    ['Lighthouse pasta', '/buying'],
  ];
  for (const [session, stage] of printable) {
    for (const format of ['A4', 'Letter'] as const) {
      test(`${stage} of ${session} fits ${format} in black on white`, async ({ page }) => {
        await signIn(page);
        await openSession(page, session, stage);
        const pdf = await page.pdf({ format });
        expect(pdf.length).toBeGreaterThan(5000);
        await page.emulateMedia({ media: 'print' });
        // The width between the margins of 12 mm, in CSS pixels.
        await page.setViewportSize({ width: format === 'A4' ? 703 : 725, height: 1000 });
        const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
        expect(overflow).toBeLessThanOrEqual(0);
        await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden();
        await expect(page.getByRole('button').first()).toBeHidden();
        const background = await page.evaluate(() => getComputedStyle(document.body).backgroundColor);
        expect(background).toBe('rgb(255, 255, 255)');
      });
    }
  }
});
