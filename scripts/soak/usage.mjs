import { readdirSync, readFileSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';

/** How long processes may take to collect garbage. */
const COLLECT_MS = 1500;

/**
 * What the app uses once the server has collected garbage: memory in MB, that of its heap with buffers, of the
 * server and of its worker processes; and open files.
 */
export async function usageOf({ address, pid }) {
  const workers = childrenOf(pid);
  process.kill(pid, 'SIGUSR2');
  await pause(COLLECT_MS);
  const metrics = await (await fetch(`${address}/api/metrics`)).text();
  const metric = (name) => Number(new RegExp(`^${name} (\\S+)`, 'm').exec(metrics)[1]) / 1024 / 1024;
  return {
    heap: metric('nodejs_heap_size_used_bytes') + metric('nodejs_external_memory_bytes'),
    server: memoryOf(pid),
    workers: workers.reduce((sum, worker) => sum + memoryOf(worker), 0),
    files: readdirSync(`/proc/${pid}/fd`).length,
  };
}

const memoryOf = (pid) => {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    // It has ended since.
    return 0;
  }
};

const childrenOf = (pid) =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);
