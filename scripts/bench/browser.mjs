import { chromium } from '@playwright/test';
import { CHROMIUM } from '../chromium.mjs';
import { figure, median, ms } from './figures.mjs';
import { editTimes, frames, longestBlock, openTimes, timed } from './page-times.mjs';

/** Opens and scrolls a sheet of 100,000 records in Chromium, and measures what a person would feel. */
export async function benchBrowser(address, sheet) {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  try {
    await page.request.post(`${address}/api/demo`, { data: {} });
    const small = await openTimes(page, `${address}/sheets/station-readings`);
    const opened = await openTimes(page, `${address}/sheets/${sheet}`);
    const packed = await timed(async () => (await page.request.get(`${address}/api/sheets/${sheet}/packed`)).body());
    figure(
      'open 100,000 records x 12 fields to first painted cells',
      ms(median(opened)),
      `with 480 records ${ms(median(small))}, its bytes alone ${ms(packed)}`,
      'under 1,500 ms',
    );
    const [link] = await (
      await page.request.post(`${address}/api/sheets/${sheet}/sharing/links`, {
        data: { links: [{ role: 'viewer', name: 'Bench' }] },
      })
    ).json();
    const viewer = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await viewer.request.post(`${address}/api${link.path}`, { data: { name: 'Bench' } });
    const reading = await openTimes(await viewer.newPage(), `${address}/sheets/${sheet}`);
    await viewer.close();
    figure(
      'the same as a viewer, who gets looks and no rules',
      ms(median(reading)),
      `as its owner ${ms(median(opened))}`,
      'a few seconds',
    );
    await page.goto(`${address}/sheets/${sheet}`);
    await page.locator('[data-address="A5"]').waitFor({ timeout: 60_000 });
    const idle = await frames(page, null);
    const scrolled = await frames(page, 900);
    figure(
      'frames a second while scrolling 900 px a frame, looks on',
      scrolled.rate.toFixed(0),
      `the same page at rest ${idle.rate.toFixed(0)}`,
      '50 or more',
    );
    figure('slowest frame in 20 of that scrolling', ms(scrolled.slow), `at rest ${ms(idle.slow)}`, '');
    const edit = await editTimes(page);
    figure(
      'value entered (Enter pressed) to the cell painted in its look',
      ms(median(edit.painted)),
      `one frame ${ms(1000 / idle.rate)}`,
      'a frame or two',
    );
    figure(
      'frames a second while a threshold is dragged',
      edit.drag.frames.toFixed(0),
      `at rest ${idle.rate.toFixed(0)}`,
      '30 or more',
    );
    figure(
      'times a second that the grid is painted anew meanwhile',
      edit.drag.paints.toFixed(0),
      `frames at rest ${idle.rate.toFixed(0)}`,
      '30 or more',
    );
    figure(
      'longest block of the main thread: edits, drags, scrolling',
      ms(await longestBlock(page)),
      'three frames at rest 50 ms',
      'under 50 ms',
    );
    await largeEdits(page);
    await page.goto(`${address}/sheets/dressed`);
    await page.locator('[data-address="G5"][data-rules]').waitFor({ timeout: 60_000 });
    const dressed = await frames(page, 900);
    figure(
      'frames a second with fills, bars, icons and borders on',
      dressed.rate.toFixed(0),
      `under the demo's rules alone ${scrolled.rate.toFixed(0)}`,
      '50 or more',
    );
    figure(
      'slowest frame in 20 of that scrolling',
      ms(dressed.slow),
      `under the demo's rules alone ${ms(scrolled.slow)}`,
      '',
    );
    const brisk = await frames(page, 150);
    figure(
      'the same at 150 px a frame, as a hand turns a wheel',
      brisk.rate.toFixed(0),
      `at 900 px ${dressed.rate.toFixed(0)}`,
      '50 or more',
    );
  } finally {
    await browser.close();
  }
}

/** Edits of all records at once, from the last key or click to the repaint of the cells in view. */
async function largeEdits(page) {
  const cell = (address) => page.locator(`[data-address="${address}"]`);
  const goTo = async (where) => {
    await page.getByLabel('Go to a cell').fill(where);
    await page.getByLabel('Go to a cell').press('Enter');
  };
  const change = async (says, address, act) => {
    await page.evaluate(() => (document.querySelector('[role=grid]').scrollTop = 0));
    const before = await cell(address).textContent();
    const took = await timed(async () => {
      await act();
      await page.waitForFunction(
        ([at, was]) => document.querySelector(`[data-address="${at}"]`)?.textContent !== was,
        [address, before],
        {
          polling: 'raf',
        },
      );
    });
    figure(says, ms(took), '', 'about a second');
  };
  const order = page.getByRole('button', { name: 'Sort and filter' });
  const choose = async (button) => {
    await cell('G1').click();
    await order.click();
    await page.getByRole('button', { name: button }).waitFor();
    return page.getByRole('button', { name: button });
  };
  const falling = await choose('Descending');
  await change('sheet open: 100,000 records sorted', 'G2', () => falling.click());
  await page.keyboard.press('Escape');
  await goTo('L2');
  await change('sheet open: a formula entered and filled down 100,000 rows', 'L4', async () => {
    await page.keyboard.type('=G2*2+E2');
    await page.keyboard.press('Enter');
    await goTo('L2:L100001');
    await page.evaluate(() => (document.querySelector('[role=grid]').scrollTop = 0));
    await page.keyboard.press('Alt+Shift+ArrowDown');
  });
  await goTo('A2');
  await change('sheet open: 10,000 x 10 cells pasted', 'B4', () =>
    page.evaluate(() => {
      const clipboard = new globalThis.DataTransfer();
      clipboard.setData(
        'text/plain',
        Array.from({ length: 10_000 }, (_, row) =>
          Array.from({ length: 10 }, (__, field) => row * field + 1).join('\t'),
        ).join('\n'),
      );
      document
        .querySelector('[role=grid]')
        .dispatchEvent(
          new globalThis.ClipboardEvent('paste', { clipboardData: clipboard, bubbles: true, cancelable: true }),
        );
    }),
  );
}
