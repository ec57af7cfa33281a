// From the press on a stored item to its text on the screen, at 4x CPU throttle, in headless Chromium.
import { openDemo } from './browser.mjs';

const ROUNDS = 9;
const { page, end } = await openDemo(4970);
await page.getByRole('link', { name: /^Queue/ }).click();
await page.getByRole('link', { name: /What the eelgrass knows/ }).waitFor();
await page.waitForTimeout(6000);
const throttle = await page.context().newCDPSession(page);
await throttle.send('Emulation.setCPUThrottlingRate', { rate: 4 });
const times = [];
for (let round = 0; round < ROUNDS; round++) {
  times.push(
    await page.evaluate(
      () =>
        new Promise((resolve) => {
          const link = [...document.querySelectorAll('a')].find((each) =>
            each.textContent.includes('What the eelgrass knows'),
          );
          const before = performance.now();
          const shown = () => {
            if (document.querySelector('.article p'))
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - before)));
            else requestAnimationFrame(shown);
          };
          link.click();
          shown();
        }),
    ),
  );
  await page.getByRole('button', { name: 'Back to Queue' }).click();
  await page.getByRole('link', { name: /What the eelgrass knows/ }).waitFor();
  await page.waitForTimeout(400);
}
times.sort((a, b) => a - b);
console.log(`Opening a stored article of 1,350 words at 4x CPU throttle, ${ROUNDS} times:`);
console.log(
  `  median ${times[Math.floor(ROUNDS / 2)].toFixed(0)} ms, best ${times[0].toFixed(0)} ms, worst ${times.at(-1).toFixed(0)} ms`,
);
await end();
process.exit(0);
