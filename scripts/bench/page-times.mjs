// What a person feels of an open sheet, measured in its page.
const FRAMES = 300;

export async function timed(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

/** Milliseconds from the start of the page to its first painted cells, several times. */
export async function openTimes(page, url) {
  await page.addInitScript(() => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector('[data-address="A5"]')) return;
      observer.disconnect();
      globalThis.cellsAtMs = performance.now();
    }).observe(document, { subtree: true, childList: true });
  });
  const times = [];
  for (let run = 0; run < 8; run++) {
    await page.goto('about:blank');
    await page.goto(url, { waitUntil: 'commit' });
    await page.locator('[data-address="A5"]').waitFor({ timeout: 60_000 });
    // Told by the page itself: what looks from outside looks every half second.
    times.push(await page.evaluate(() => globalThis.cellsAtMs));
  }
  return times.slice(1);
}

/** Frames while the grid scrolls by a number of pixels a frame, down and up again. */
export function frames(page, step) {
  return page.evaluate(
    async ({ count, by }) => {
      const grid = document.querySelector('[role=grid]');
      const gaps = [];
      let last = performance.now();
      let direction = 1;
      for (let frame = 0; frame < count; frame++) {
        await new Promise(requestAnimationFrame);
        const now = performance.now();
        gaps.push(now - last);
        last = now;
        if (by !== null) grid.scrollTop += by * direction;
        if (frame === count / 2) direction = -1;
      }
      const sorted = gaps.slice(1).sort((a, b) => a - b);
      return {
        rate: 1000 / (sorted.reduce((sum, gap) => sum + gap, 0) / sorted.length),
        slow: sorted[Math.floor(sorted.length * 0.95)],
      };
    },
    { count: FRAMES, by: step },
  );
}

/** Edits from Enter to the painted look, and what is painted while a threshold is dragged. */
export async function editTimes(page) {
  await page.evaluate(() => {
    globalThis.blocks = [];
    new PerformanceObserver((list) =>
      globalThis.blocks.push(...list.getEntries().map((entry) => entry.duration)),
    ).observe({ type: 'longtask' });
    document.querySelector('[role=grid]').scrollTop = 0;
  });
  await page.locator('[data-address="G2"]').click();
  const painted = [];
  for (let run = 0; run < 12; run++) {
    await page.keyboard.press('ArrowUp');
    await page.locator('[data-address="G2"]').click();
    await page.keyboard.type(run % 2 ? '12' : '2');
    painted.push(await page.evaluate(enterAndWaitForPaint));
  }
  await page.getByRole('navigation', { name: 'Legend' }).locator('button[aria-pressed]').nth(1).click();
  await page.getByRole('slider').waitFor();
  const grip = await page.locator('circle').boundingBox();
  await page.mouse.move(grip.x + 6, grip.y + 6);
  await page.mouse.down();
  const drag = await dragTimes(page, { x: grip.x + 6, y: grip.y + 6 });
  await page.mouse.up();
  await frames(page, 900);
  return { painted, drag };
}

/** Drags the handle that is held for four seconds, a move a frame, and counts frames and repaints of the grid. */
function dragTimes(page, from) {
  return page.evaluate(async ({ x, y }) => {
    const handle = document.querySelector('[role=slider]');
    const paint = CanvasRenderingContext2D.prototype.fillRect;
    let paints = 0;
    CanvasRenderingContext2D.prototype.fillRect = function (left, top, width, height) {
      // The ground of the whole grid, with which each painting of it begins.
      if (left === 0 && top === 0 && width > 500 && height > 100) paints++;
      paint.call(this, left, top, width, height);
    };
    const began = performance.now();
    let frame = 0;
    for (; performance.now() - began < 4000; frame++) {
      await new Promise(requestAnimationFrame);
      const clientX = x + 90 * Math.sin(frame / 30);
      handle.dispatchEvent(
        new globalThis.PointerEvent('pointermove', { clientX, clientY: y, bubbles: true, pointerId: 1 }),
      );
    }
    CanvasRenderingContext2D.prototype.fillRect = paint;
    const seconds = (performance.now() - began) / 1000;
    return { frames: frame / seconds, paints: paints / seconds };
  }, from);
}

/**
 * Presses Enter in the cell being edited, and waits until the painter fills that cell otherwise than before. Runs in
 * the page.
 */
async function enterAndWaitForPaint() {
  const input = document.querySelector('input[aria-label="Cell content"]');
  const [canvasBox, inputBox] = [document.querySelector('canvas'), input].map((element) =>
    element.getBoundingClientRect(),
  );
  const [left, top] = [inputBox.x - canvasBox.x, inputBox.y - canvasBox.y];
  const paint = CanvasRenderingContext2D.prototype.fillRect;
  const isAlarm = (context, x, y) => Math.abs(x - left) < 3 && Math.abs(y - top) < 3 && context.fillStyle === '#f7d3c8';
  const wanted = Number(input.value) < 7;
  const began = performance.now();
  let took = NaN;
  // A frame paints the background of the cell before its lines: its fill at the end of the frame is what is seen.
  await new Promise((done) => {
    let filled = false;
    CanvasRenderingContext2D.prototype.fillRect = function (x, y, width, height) {
      paint.call(this, x, y, width, height);
      if (x === 0 && y === 0 && width > 500 && height > 100) filled = false;
      if (isAlarm(this, x, y)) filled = true;
      if (x === 0 && y === 0 && width < 100) {
        if (filled === wanted) {
          took = performance.now() - began;
          done();
        }
      }
    };
    input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    setTimeout(done, 3000);
  });
  CanvasRenderingContext2D.prototype.fillRect = paint;
  return took;
}

/** The longest block of the main thread in milliseconds, since the first edit was measured. */
export const longestBlock = (page) => page.evaluate(() => Math.max(0, ...globalThis.blocks));
