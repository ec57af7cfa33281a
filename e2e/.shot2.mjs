import { chromium } from '@playwright/test';
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const p = await (await b.newContext({ viewport: { width: 390, height: 844 } })).newPage();
await p.goto('http://127.0.0.1:4800/');
await p.getByRole('button', { name: /Fill in the demo/ }).click();
await p.getByRole('button', { name: 'Sign in' }).click();
await p.waitForTimeout(2500);
const say = async () => console.log(p.url(), await p.getByRole('heading', { level: 1 }).allTextContents());
await say();
await p.getByRole('link', { name: /Ferry vote/ }).click();
await p.waitForTimeout(800);
await say();
await p.getByRole('button', { name: 'Back to Inbox' }).click();
await p.waitForTimeout(800);
await say();
await p.getByRole('link', { name: /^Queue/ }).click();
await p.waitForTimeout(800);
await say();
await p.getByRole('link', { name: /^Library/ }).click();
await p.waitForTimeout(800);
await say();
await p.getByRole('link', { name: /^You/ }).click();
await p.waitForTimeout(800);
await say();
await p.getByRole('link', { name: /^Queue/ }).click();
await p.waitForTimeout(800);
await say();
await b.close();
