/** What a message asks for; it leaves when that has happened. */
export type Asked = 'handles' | 'selection' | 'unlock';

export type Toast = {
  id: number;
  message: string;
  kind: 'done' | 'problem';
  action?: { label: string; run: () => void };
  asks?: Asked;
};

/** What was said, and when (ms since the epoch). */
export type Said = { message: string; kind: Toast['kind']; at: number };

const SAID = 'isle.said';
const SAID_MOST = 50;

/** How long a message stays: as long as it takes to read it and to do what it offers, ms. */
const stays = ({ kind, message, action }: Toast): number =>
  kind === 'done' ? (action ? 10_000 : 5000) : Math.min(30_000, 8000 + 80 * message.length);

/**
 * Short messages at the foot of the window. They leave after a while, or once what they ask for has happened; what
 * was said in this tab can be read again (`said`). The same message is not shown twice at a time.
 */
class Toasts {
  list: Toast[] = $state([]);
  /** What was said in this tab, the last first; a message that has left can be read again here. */
  said: readonly Said[] = $state.raw([]);
  private next = 1;
  private readonly timers = new Map<number, ReturnType<typeof setTimeout>>();

  show(message: string, options: Partial<Pick<Toast, 'kind' | 'action' | 'asks'>> = {}): void {
    const toast: Toast = { id: this.next++, message, kind: 'done', ...options };
    this.note({ message, kind: toast.kind, at: Date.now() });
    const twin = this.list.find((one) => one.message === message && one.kind === toast.kind);
    if (twin && !twin.action && !toast.action) return this.leaveLater(twin);
    if (twin) this.dismiss(twin.id);
    for (const { id } of this.list.slice(0, -3)) this.dismiss(id);
    this.list = [...this.list, toast];
    this.leaveLater(toast);
  }

  /** Takes up what was said in this tab before it was loaded anew. */
  recall(): void {
    try {
      const held: unknown = JSON.parse(sessionStorage.getItem(SAID) ?? '[]');
      if (Array.isArray(held)) this.said = [...this.said, ...(held as Said[])].slice(0, SAID_MOST);
    } catch {
      // What cannot be read is passed over; it was said once.
    }
  }

  private note(said: Said): void {
    const rest = this.said.filter(({ message }) => message !== said.message);
    this.said = [said, ...rest].slice(0, SAID_MOST);
    try {
      sessionStorage.setItem(SAID, JSON.stringify(this.said));
    } catch {
      // A browser that keeps nothing shows it as long as the page is open.
    }
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
