import { expect, test } from 'vitest';
import { countRequest, REQUESTS_A_MINUTE } from '../../src/server/programs/request-limit';

test('a program has a limit of requests in a minute, and learns when it may ask again; others are not delayed', async () => {
  const answers = [];
  for (let at = 0; at < REQUESTS_A_MINUTE; at++) answers.push(await countRequest('busy'));
  expect(answers.every(({ isOver }) => !isOver)).toBe(true);
  expect(answers[0]!.headers).toMatchObject({
    'ratelimit-limit': String(REQUESTS_A_MINUTE),
    'ratelimit-remaining': String(REQUESTS_A_MINUTE - 1),
  });
  expect(answers.at(-1)!.headers['ratelimit-remaining']).toBe('0');
  const over = await countRequest('busy');
  expect(over.isOver).toBe(true);
  // RFC 9110, 10.2.3: seconds to wait.
  const seconds = Number(over.headers['retry-after']);
  expect(seconds).toBeGreaterThanOrEqual(1);
  expect(seconds).toBeLessThanOrEqual(60);
  expect((await countRequest('quiet')).isOver).toBe(false);
});
