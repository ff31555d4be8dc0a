import { expect, test } from '@playwright/test';
import { signIn } from './people';

test('anything is found by its name from the keyboard alone, with a slip of the finger', async ({ page }) => {
  await signIn(page);
  await page.goto('/words');
  const find = page.getByRole('button', { name: 'Go to' });
  await expect(find).toHaveAttribute('aria-keyshortcuts', '/');
  await page.keyboard.press('/');
  await expect(page.getByRole('dialog', { name: 'Go to' })).toBeVisible();
  await page.keyboard.type('slpiway');
  await expect(page.getByRole('option', { name: 'Slipway slaw' })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Slipway slaw' })).toBeVisible();
  await find.click();
  await expect(page.getByRole('option', { name: 'Countdown' })).toBeVisible();
  await page.keyboard.type('holidays');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Closures', exact: true })).toBeVisible();
  // A letter in a field is a letter.
  await find.click();
  await expect(page.getByRole('option', { name: 'Countdown' })).toBeVisible();
  await page.keyboard.type('who/where?');
  await expect(page.getByText('Nothing is called like this.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
});

test('the keys are listed, and can be turned off; the crew finds no family', async ({ page }) => {
  await signIn(page, 'crew');
  await page.goto('/words');
  await expect(page.getByRole('button', { name: 'Go to' })).toHaveAttribute('aria-keyshortcuts', '/');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.getByLabel('/ and ? do something on this device').uncheck();
  await page.getByRole('button', { name: 'Close' }).first().click();
  await page.keyboard.press('/');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByRole('button', { name: 'Go to' }).click();
  await expect(page.getByRole('option', { name: 'Trips' })).toBeVisible();
  await page.keyboard.type('Halloway');
  await expect(page.getByText('Nothing is called like this.')).toBeVisible();
});
