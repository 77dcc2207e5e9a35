import { existsSync } from 'node:fs';
import { chromium } from 'playwright-core';

/** Debian's Chromium; the one that draws no window of its own takes two thirds of a processor's time for the same pages. */
const CHROMIUM = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** A headless browser whose pages are drawn without an imitated graphics card; only the space view needs one. */
export const launch = (more = []) =>
  chromium.launch({
    executablePath: CHROMIUM.find((each) => existsSync(each)) ?? CHROMIUM.at(-1),
    args: [
      ...['--no-sandbox', '--disable-background-networking'],
      ...['--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
      ...['--disable-gpu-compositing', '--disable-gpu-rasterization'],
      ...more,
    ],
  });

/**
 * Run in a page: notes when a key or a button is pressed. The driver of the browser waits before it presses, until what it is to
 * press has stood still: on a busy machine up to a second, which is none of the program's.
 */
export function notePresses() {
  for (const kind of ['keydown', 'click'])
    addEventListener(kind, () => void (globalThis.pressed = Date.now()), { capture: true });
}
