/** What a message asks for; it leaves when that has happened. */
export type Asked = 'selection' | 'unlock';

export type Toast = {
  id: number;
  message: string;
  kind: 'done' | 'problem';
  action?: { label: string; run: () => void };
  asks?: Asked;
};

/** How long a message stays: as long as it takes to read it and to do what it offers, ms. */
const stays = ({ kind, message, action }: Toast): number =>
  kind === 'done' ? (action ? 10_000 : 5000) : Math.min(30_000, 8000 + 80 * message.length);

/**
 * Short messages at the foot of the window. They leave after a while, or once what they ask for has happened; so what
 * they tell is never told here alone. The same message is not shown twice at a time.
 */
class Toasts {
  list: Toast[] = $state([]);
  private next = 1;
  private readonly timers = new Map<number, ReturnType<typeof setTimeout>>();

  show(message: string, options: Partial<Pick<Toast, 'kind' | 'action' | 'asks'>> = {}): void {
    const toast: Toast = { id: this.next++, message, kind: 'done', ...options };
    const twin = this.list.find((one) => one.message === message && one.kind === toast.kind);
    if (twin && !twin.action && !toast.action) return this.leaveLater(twin);
    if (twin) this.dismiss(twin.id);
    for (const { id } of this.list.slice(0, -3)) this.dismiss(id);
    this.list = [...this.list, toast];
    this.leaveLater(toast);
  }

  problem(message: string, asks?: Asked): void {
    this.show(message, { kind: 'problem', ...(asks ? { asks } : {}) });
  }

  /** What some messages asked for has happened. */
  settled(asked: Asked): void {
    for (const toast of this.list) if (toast.asks === asked) this.dismiss(toast.id);
  }

  /** While a message is read or its button has the focus it stays. */
  hold(id: number): void {
    clearTimeout(this.timers.get(id));
  }

  letGo(id: number): void {
    const toast = this.list.find((one) => one.id === id);
    if (toast) this.leaveLater(toast);
  }

  dismiss(id: number): void {
    clearTimeout(this.timers.get(id));
    this.timers.delete(id);
    this.list = this.list.filter((toast) => toast.id !== id);
  }

  private leaveLater(toast: Toast): void {
    clearTimeout(this.timers.get(toast.id));
    this.timers.set(
      toast.id,
      setTimeout(() => this.dismiss(toast.id), stays(toast)),
    );
  }
}

export const toasts = new Toasts();
