import { test as base, type Browser, type BrowserContext, type Cookie, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { OWNER_STATE } from './owner-state';

export { expect } from '@playwright/test';

/**
 * A window of the demo's owner that the tests of one worker share: opening a page costs a processor four seconds,
 * navigating in it one.
 */
class SharedWindow {
  private context: BrowserContext | null = null;
  private page: Page | null = null;

  constructor(
    private readonly browser: Browser,
    private readonly options: NonNullable<Parameters<Browser['newContext']>[0]>,
  ) {}

  /** The context, as good as new. */
  async fresh(): Promise<BrowserContext> {
    this.context ??= await this.browser.newContext({ ...this.options, storageState: OWNER_STATE });
    return this.context;
  }

  async freshPage(): Promise<Page> {
    const context = await this.fresh();
    if (!this.page || this.page.isClosed()) this.page = await context.newPage();
    return this.page;
  }

  /** Takes back what a test may have done to it. */
  async reset(): Promise<void> {
    const { context, page } = this;
    if (!context) return;
    await context.setOffline(false);
    await context.unrouteAll({ behavior: 'ignoreErrors' });
    for (const other of context.pages()) if (other !== page) await other.close();
    await context.clearCookies();
    await context.addCookies((JSON.parse(readFileSync(OWNER_STATE, 'utf8')) as { cookies: Cookie[] }).cookies);
    if (!page || page.isClosed()) return;
    page.removeAllListeners();
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    await page.emulateMedia({ colorScheme: null, media: null });
    if (this.options.viewport) await page.setViewportSize(this.options.viewport);
    await page.mouse.move(0, 0);
    // Nothing stays in storage, and the page leaves its sheet.
    await page.goto('/api/health');
    await page.evaluate(() => {
      localStorage.clear();
      sessionStorage.clear();
    });
  }

  async close(): Promise<void> {
    await this.context?.close();
  }
}

/**
 * The tests of the project: `page` and `context` are those of the demo's owner, and shared, unless a test asks for
 * another kind of device.
 */
export const test = base.extend<object, { sharedWindow: SharedWindow }>({
  sharedWindow: [
    async ({ browser }, run, { project }) => {
      const { baseURL, viewport, contextOptions } = project.use;
      const shared = new SharedWindow(browser, { baseURL, viewport, ...contextOptions });
      await run(shared);
      await shared.close();
    },
    { scope: 'worker' },
  ],
  context: async (
    { sharedWindow, browser, baseURL, viewport, hasTouch, isMobile, storageState, contextOptions, actionTimeout },
    run,
  ) => {
    const isUsual = !hasTouch && !isMobile && storageState === OWNER_STATE;
    const context = isUsual
      ? await sharedWindow.fresh()
      : await browser.newContext({ baseURL, viewport, hasTouch, isMobile, storageState, ...contextOptions });
    context.setDefaultTimeout(actionTimeout ?? 0);
    await run(context);
    if (isUsual) await sharedWindow.reset();
    else await context.close();
  },
  page: async ({ sharedWindow, context }, run) => {
    await run(context === (await sharedWindow.fresh()) ? await sharedWindow.freshPage() : await context.newPage());
  },
});
