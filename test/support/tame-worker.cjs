// A worker that does what tests ask of it.
const open = new Set();
process.on('message', ({ id, kind, sheet, ms }) => {
  if (kind === 'open') open.add(sheet);
  if (kind === 'close') open.delete(sheet);
  if (kind === 'spin') for (const end = Date.now() + ms; Date.now() < end;);
  if (kind === 'abort') process.abort();
  if (kind === 'hoard') for (const kept = []; ;) kept.push(new Array(1000).fill(kept.length));
  if (kind === 'fail') return process.send({ id, failed: 'no such thing' });
  process.send({ id, done: kind === 'where' ? { pid: process.pid, isOpen: open.has(sheet), env: process.env } : null });
});
process.on('disconnect', () => process.exit(0));
