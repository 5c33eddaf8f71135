import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import { openStreams } from './live/open-streams';
import { processWide } from './process-wide';

const SECONDS = [0.005, 0.02, 0.1, 0.5, 2, 10, 60];

/** The metrics of a process of the server, in the text format of Prometheus under /api/metrics. */
function makeMetrics() {
  const registry = new Registry();
  const registers = [registry];
  collectDefaultMetrics({ register: registry });
  return {
    registry,
    requestSeconds: new Histogram({
      name: 'auxesis_request_seconds',
      help: 'Time to answer a request, streams aside',
      labelNames: ['method', 'status'],
      buckets: SECONDS,
      registers,
    }),
    changes: new Counter({ name: 'auxesis_changes_total', help: 'Changes of sheets that were taken', registers }),
    streams: new Gauge({
      name: 'auxesis_streams',
      help: 'Streams of events that are open',
      registers,
      collect() {
        this.set([...openStreams().values()].reduce((sum, count) => sum + count, 0));
      },
    }),
    workSeconds: new Histogram({
      name: 'auxesis_work_seconds',
      help: 'Time that a worker process took over a request, by its kind',
      labelNames: ['kind'],
      buckets: SECONDS,
      registers,
    }),
    waiting: new Gauge({ name: 'auxesis_work_waiting', help: 'Requests that wait for a worker process', registers }),
    tooCostly: new Counter({
      name: 'auxesis_work_given_up_total',
      help: 'Requests whose worker was ended, as they took too long or too much memory',
      registers,
    }),
    refusals: new Counter({
      name: 'auxesis_refusals_total',
      help: 'Requests that were refused, by why',
      labelNames: ['code'],
      registers,
    }),
  };
}

export const metrics = (): ReturnType<typeof makeMetrics> => processWide('metrics', makeMetrics);
