import { chromium } from 'playwright-core';
const [,, out, path, ...opts] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--use-angle=swiftshader','--enable-unsafe-swiftshader','--disable-background-networking'] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
const errs = []; p.on('console', m => m.type()==='error' && errs.push(m.text())); p.on('pageerror', e => errs.push(String(e)));
await p.goto('http://127.0.0.1:5311' + path); await p.waitForLoadState('load'); await p.waitForTimeout(opts.includes('slow') ? 5000 : 2000);
const sel = opts.find(o => o.startsWith('scroll='));
if (sel) { await p.getByRole('heading', { name: sel.slice(7) }).first().scrollIntoViewIfNeeded(); await p.evaluate((t) => { const h=[...document.querySelectorAll('h1,h2,h3')].find(x=>x.textContent.includes(t)); h && window.scrollTo(0, h.getBoundingClientRect().top + scrollY - 60); }, sel.slice(7)); await p.waitForTimeout(300); }
await p.screenshot({ path: out, fullPage: opts.includes('full') });
console.log(errs.slice(0,5).join('\n')); await b.close();
