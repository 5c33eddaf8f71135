import { expect, test } from 'vitest';
import { Hub } from '../../src/server/live/hub';

test('a hub that could not listen at first does so once the database is there, and says until then that it cannot', async () => {
  const listeners: (() => void)[] = [];
  // As the driver does: the first try fails, and it goes on trying with the same listeners.
  const sql = {
    listen(_: string, __: (payload: string) => void, onlisten: () => void) {
      listeners.push(onlisten);
      return Promise.reject(new Error('terminating connection due to unexpected postmaster exit'));
    },
  };
  const hub = new Hub(sql as never);
  await expect(hub.watchFindings('sheet', () => {})).rejects.toMatchObject({ code: 'CONNECT_TIMEOUT' });
  let found = 0;
  const watching = hub.watchFindings('sheet', () => found++);
  for (const onlisten of listeners) onlisten();
  await watching;
  for (const onlisten of listeners) onlisten();
  expect({ tries: listeners.length, found }).toEqual({ tries: 4, found: 1 });
});
