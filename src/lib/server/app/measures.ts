import type { RequestEvent } from '@sveltejs/kit';
import pino from 'pino';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';

export type Log = pino.Logger;

/** With ISLE_LOG=json the log is lines of JSON, one to an event; else plain sentences for people. */
export const openLog = (environment: NodeJS.ProcessEnv): Log | null =>
  environment.ISLE_LOG === 'json'
    ? pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime }, pino.destination(2))
    : null;

/** Upper edges of the classes of durations, seconds. */
const CLASSES = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30];

/** What is counted and timed, in the Prometheus text format: by routes as they are written, never by names, ids or contents. */
export class Measures {
  private readonly registry = new Registry();
  private readonly answers = new Counter({
    name: 'isle_answers_total',
    help: 'Requests that were answered',
    labelNames: ['method', 'route', 'status'],
    registers: [this.registry],
  });
  private readonly durations = new Histogram({
    name: 'isle_answer_seconds',
    help: 'How long answers took',
    labelNames: ['route'],
    buckets: CLASSES,
    registers: [this.registry],
  });

  constructor(
    private readonly log: Log | null,
    listening: () => number,
  ) {
    collectDefaultMetrics({ register: this.registry });
    new Gauge({
      name: 'isle_event_streams',
      help: 'Windows that listen to what changes',
      registers: [this.registry],
      collect() {
        this.set(listening());
      },
    });
  }

  answered({ request, route }: RequestEvent, status: number, ms: number): void {
    const of = route.id ?? 'none';
    this.answers.inc({ method: request.method, route: of, status: String(status) });
    this.durations.observe({ route: of }, ms / 1000);
    this.log?.info({ method: request.method, route: of, status, ms: Math.round(ms * 10) / 10 }, 'answered');
  }

  text(): Promise<string> {
    return this.registry.metrics();
  }
}
