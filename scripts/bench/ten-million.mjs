import { chromium } from '@playwright/test';
import { CHROMIUM } from '../chromium.mjs';
import { figure, median, ms } from './figures.mjs';
import { editTimes, frames, openTimes } from './page-times.mjs';

/** Opens a sheet of 10,000,000 cells under 20 rules in Chromium, beside one of 480 records. */
export async function benchTenMillion(address, sheet) {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  try {
    await page.request.post(`${address}/api/demo`, { data: {} });
    const small = median(await openTimes(page, `${address}/sheets/station-readings`));
    const opened = median(await openTimes(page, `${address}/sheets/${sheet}`));
    figure(
      'open 10,000,000 cells, 20 rules, to first painted cells',
      ms(opened),
      `with 480 records ${ms(small)}`,
      `${(opened / small).toFixed(1)}x (aim 12x)`,
    );
    const idle = await frames(page, null);
    const scrolled = await frames(page, 900);
    figure(
      'frames a second while scrolling 900 px a frame',
      scrolled.rate.toFixed(0),
      `the same page at rest ${idle.rate.toFixed(0)}`,
      'aim 0.95 of them',
    );
    const { painted, drag } = await editTimes(page);
    figure(
      'value entered (Enter pressed) to the cell painted in its look',
      ms(median(painted)),
      `two frames ${ms(2000 / idle.rate)}`,
      'aim two frames',
    );
    figure(
      'times a second that the grid is painted while a threshold is dragged',
      drag.paints.toFixed(0),
      `frames at rest ${idle.rate.toFixed(0)}`,
      '',
    );
    const { held, atOnce } = await memoryOf(browser, page);
    figure(
      'memory that the page and its worker hold',
      `${held} MB`,
      `before garbage was collected ${atOnce} MB`,
      'under 500 MB',
    );
  } finally {
    await browser.close();
  }
}

/** Megabytes of objects and arrays in the page and its worker, as the browser tells them. */
async function memoryOf(browser, page) {
  const session = await browser.newBrowserCDPSession();
  const { targetInfos } = await session.send('Target.getTargets');
  const asks = [await page.context().newCDPSession(page)].map((own) => (method) => own.send(method));
  for (const { targetId } of targetInfos.filter(({ type }) => type === 'worker'))
    asks.push(await askWorker(session, targetId));
  const sum = async () => {
    let bytes = 0;
    for (const ask of asks) {
      const { usedSize, embedderHeapUsedSize, backingStorageSize } = await ask('Runtime.getHeapUsage');
      bytes += usedSize + embedderHeapUsedSize + backingStorageSize;
    }
    return Math.round(bytes / 1e6);
  };
  const atOnce = await sum();
  for (const ask of asks) await ask('HeapProfiler.collectGarbage');
  return { atOnce, held: await sum() };
}

/** Asks a worker through its page's browser: Playwright has no session of a worker's own. */
async function askWorker(session, targetId) {
  const { sessionId } = await session.send('Target.attachToTarget', { targetId, flatten: false });
  const waiting = new Map();
  session.on('Target.receivedMessageFromTarget', ({ message, sessionId: from }) => {
    if (from !== sessionId) return;
    const { id, result } = JSON.parse(message);
    waiting.get(id)?.(result);
  });
  return (method) =>
    new Promise((answer) => {
      const id = waiting.size + 1;
      waiting.set(id, answer);
      void session.send('Target.sendMessageToTarget', { sessionId, message: JSON.stringify({ id, method }) });
    });
}
