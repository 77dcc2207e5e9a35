import { chromium } from 'playwright-core';
const [,, url, out, sel, h='800'] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--use-angle=swiftshader','--enable-unsafe-swiftshader','--disable-background-networking'] });
const p = await b.newPage({ viewport: { width: 1280, height: +h } });
await p.goto(url); await p.waitForTimeout(2500);
if (sel) { const l = p.locator(sel).first(); await l.scrollIntoViewIfNeeded(); await l.screenshot({ path: out }); } else await p.screenshot({ path: out, fullPage: true });
await b.close();
