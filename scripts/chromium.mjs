// Debian's Chromium, for the tests, the bench and the pictures: installed where it is missing, started one way.
import { ensureDebianPackage } from './system.mjs';

/** Flags that make it run without a display, as root too, and leave the network alone. */
const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** What Playwright starts it with. @throws StepFailed when it is missing and cannot be installed */
export const chromiumOptions = () => ({ executablePath: ensureDebianPackage('chromium', 'chromium'), args: ARGS });

/** A browser. */
export async function launchChromium() {
  const { chromium } = await import('@playwright/test');
  return chromium.launch(chromiumOptions());
}
