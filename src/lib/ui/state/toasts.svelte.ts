export type Toast = {
  id: number;
  message: string;
  kind: 'done' | 'problem';
  action?: { label: string; run: () => void };
};

/** Short messages at the foot of the window. A problem stays until it is dismissed, a success for some seconds. */
class Toasts {
  list: Toast[] = $state([]);
  private next = 1;

  show(message: string, options: { kind?: Toast['kind']; action?: Toast['action'] } = {}): void {
    const id = this.next++;
    const kind = options.kind ?? 'done';
    this.list = [
      ...this.list.slice(-3),
      { id, message, kind, ...(options.action ? { action: options.action } : {}) },
    ];
    if (kind === 'done') setTimeout(() => this.dismiss(id), options.action ? 10_000 : 5000);
  }

  problem(message: string): void {
    this.show(message, { kind: 'problem' });
  }

  dismiss(id: number): void {
    this.list = this.list.filter((toast) => toast.id !== id);
  }
}

export const toasts = new Toasts();
