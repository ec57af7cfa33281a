import { chromium } from '@playwright/test';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] });
const wide = process.argv[2] === 'wide', dark = process.argv[3] === 'dark';
const ctx = await b.newContext({ viewport: wide ? { width: 1280, height: 800 } : { width: 390, height: 844 }, colorScheme: dark ? 'dark' : 'light', deviceScaleFactor: 1 });
const p = await ctx.newPage();
p.on('console', m => { if (['error','warning'].includes(m.type())) console.log('CONSOLE', m.text().slice(0, 300)); });
p.on('pageerror', e => console.log('PAGEERROR', e.message, e.stack?.slice(0,400)));
await p.goto('http://127.0.0.1:4800/');
await p.waitForTimeout(1500);
const name = n => `/tmp/shots/${wide?'wide-':''}${dark?'night-':''}${n}.png`;
await p.screenshot({ path: name('signin') });
await p.getByRole('button', { name: /Fill in the demo/ }).click();
await p.getByRole('button', { name: 'Sign in' }).click();
await p.waitForTimeout(3500);
await p.screenshot({ path: name('inbox') });
for (const step of process.argv.slice(4)) {
  const [what, ...rest] = step.split('=');
  const arg = rest.join('=');
  if (what === 'go') await p.goto('http://127.0.0.1:4800' + arg);
  if (what === 'click') await p.getByRole(arg.split(':')[0], { name: new RegExp(arg.split(':')[1]) }).first().click();
  if (what === 'wheel') { await p.mouse.move(200, 500); await p.mouse.wheel(0, Number(arg)); }
  if (what === 'key') await p.keyboard.press(arg);
  if (what === 'wait') await p.waitForTimeout(Number(arg));
  if (what === 'shot') { await p.waitForTimeout(700); await p.screenshot({ path: name(arg) }); }
  if (what === 'html') console.log((await p.content()).slice(0, 3000));
}
await b.close();
