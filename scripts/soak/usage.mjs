import { readdirSync, readFileSync } from 'node:fs';

/** What processes of the app use, in one moment. Memory in MB. */
export function usageOf(pid) {
  const workers = childrenOf(pid);
  return {
    server: memoryOf(pid),
    workers: workers.reduce((sum, worker) => sum + memoryOf(worker), 0),
    files: readdirSync(`/proc/${pid}/fd`).length,
  };
}

const memoryOf = (pid) => {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
};

const childrenOf = (pid) =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number);

/** How many MB the server's own heap has in use, from its metrics. */
export async function heapOf(address) {
  const text = await (await fetch(`${address}/api/metrics`)).text();
  return Number(/^nodejs_heap_size_used_bytes (\S+)/m.exec(text)[1]) / 1024 / 1024;
}

/** The slope of the line of least squares through points [x, y]. */
export function slopeOf(points) {
  const mean = (at) => points.reduce((sum, point) => sum + point[at], 0) / points.length;
  const [x, y] = [mean(0), mean(1)];
  const along = points.reduce((sum, point) => sum + (point[0] - x) * (point[1] - y), 0);
  const across = points.reduce((sum, point) => sum + (point[0] - x) ** 2, 0);
  return along / across;
}
