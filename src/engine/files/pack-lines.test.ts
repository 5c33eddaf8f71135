import { gunzipSync } from 'node:zlib';
import { expect, test } from 'vitest';
import { packLines } from './pack-lines';

/** Lines as a file gives them, some short and some longer than what is packed at once. */
const LINES = Array.from({ length: 500 }, (_, at) => `${'é'.repeat(at % 7 === 0 ? 70_000 / 50 : at)} ${at}\n`);

async function* given(lines: readonly string[], failsAt = Infinity): AsyncGenerator<string> {
  for (const [at, line] of lines.entries()) {
    if (at === failsAt) throw new Error('the file ends here');
    yield line;
  }
}

test.each([
  ['no line', []],
  ['one line', ['a\n']],
  ['many lines', LINES],
  ['a line longer than a piece', ['x'.repeat(200_000), '\n', 'y\n']],
])('%s comes out of the packed text as it went in', async (_, lines) => {
  const packed = await packLines(given(lines));
  expect(gunzipSync(Buffer.from(await packed.arrayBuffer())).toString('utf8')).toBe(lines.join(''));
});

test.each([0, 1, 499])('a file that fails at line %d says why', async (failsAt) => {
  await expect(packLines(given(LINES, failsAt))).rejects.toThrow('the file ends here');
});
