import { expect, test } from './test';

/** Bytes of script, compressed, that a browser fetches before it can show a page. */
const BUDGETS = { '/': 300_000, '/sheets/station-readings': 450_000 };

for (const [path, most] of Object.entries(BUDGETS))
  test(`the scripts of ${path} weigh less than ${most / 1000} kB before it is shown`, async ({ page, baseURL }) => {
    const html = await (await page.request.get(path)).text();
    // What is fetched later is asked for by scripts; a browser of today leaves out those for older ones.
    const tags = html.match(/<script[^>]+src="[^"]+"[^>]*>/g) ?? [];
    const sources = new Set(
      tags
        .filter((tag) => !/nomodule/i.test(tag))
        .map((tag) => /src="([^"]+)"/.exec(tag)![1]!.replaceAll('&amp;', '&')),
    );
    expect(sources.size).toBeGreaterThan(5);
    const sizes = await Promise.all(
      [...sources].map(async (source) => {
        const { headers } = await fetch(new URL(source, baseURL), {
          method: 'HEAD',
          headers: { 'accept-encoding': 'br' },
        });
        expect(headers.get('content-encoding'), source).toBe('br');
        return Number(headers.get('content-length'));
      }),
    );
    const bytes = sizes.reduce((sum, size) => sum + size, 0);
    test.info().annotations.push({ type: 'bytes', description: String(bytes) });
    expect(bytes).toBeGreaterThan(50_000);
    expect(bytes).toBeLessThan(most);
  });
