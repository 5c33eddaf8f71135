import { afterEach, expect, test, vi } from 'vitest';
import { OpenEngine } from '../../../test/support/open-engine';

afterEach(() => vi.unstubAllGlobals());

test('a workbook of more cells than a page can hold is refused in words, and separated values are written', async () => {
  const opened = await OpenEngine.make();
  const area = { left: 0, top: 0, right: 999, bottom: 5000 };
  for (const format of ['ooxml', 'odf'] as const)
    await expect(opened.ask({ kind: 'export', format, options: {}, area })).rejects.toThrow(
      'A workbook takes at most 5,000,000 cells',
    );
  await expect(opened.ask({ kind: 'export', format: 'csv', options: {} })).resolves.toMatchObject({ name: 'Test.csv' });
});
