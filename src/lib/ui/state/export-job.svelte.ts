import type { ExportJob } from '$lib/contract/data';
import type { Outcome } from '$lib/contract/failure';
import { call, urlOf } from './api';

/** One file that the server makes: how far it is, why it failed, and a way to stop it. */
export class ExportRun {
  job: ExportJob | null = $state.raw(null);
  problem: string | null = $state(null);
  private stopped = false;

  get working(): boolean {
    return this.job?.state === 'waiting' || this.job?.state === 'running';
  }

  /** Starts a job, waits for it, and downloads its file. */
  async run(start: () => Promise<Outcome<ExportJob>>): Promise<void> {
    this.problem = null;
    const begun = await start();
    if (!begun.ok) {
      this.problem = begun.failure.message;
      return;
    }
    this.stopped = false;
    this.job = begun.value;
    while (this.job && this.working) {
      await new Promise((resolve) => setTimeout(resolve, 150));
      const next: Outcome<ExportJob> = await call('GET /exports/{id}', { id: this.job.id });
      if (!next.ok) {
        this.problem = next.failure.message;
        this.job = null;
        return;
      }
      this.job = next.value;
    }
    if (this.job?.state === 'done') download(urlOf('GET /exports/{id}/file', { id: this.job.id }));
    else if (this.job?.state === 'failed') this.problem = this.job.message;
    if (this.stopped) this.job = null;
  }

  async stop(): Promise<void> {
    this.stopped = true;
    if (this.job) await call('DELETE /exports/{id}', { id: this.job.id });
  }
}

/** Hands a file over as a download. */
export function download(href: string): void {
  const link = document.createElement('a');
  link.href = href;
  link.download = '';
  link.click();
}
