import type { Whereabouts } from '../../contract/given-people';
import type { Presence } from '../../contract/live';
import type { PersonData } from '../../contract/people';
import type { Events } from './events';

/** Who says nothing for so long is not there any more. */
const GONE_MS = 45_000;
const LOOK_MS = 10_000;
const MOST_VIEWS = 2000;

type Held = { subject: string; here: Presence; at: number };

/** Who is on which layout or pattern: kept in memory alone, and told to all who listen. */
export class Present {
  private readonly views = new Map<string, Held>();
  private readonly timer: NodeJS.Timeout;

  constructor(private readonly events: Events) {
    this.timer = setInterval(() => this.look(), LOOK_MS);
    this.timer.unref();
  }

  stop(): void {
    clearInterval(this.timer);
  }

  /** Notes where a window is, and answers who else is there; `null` is nowhere any more. */
  note(view: string, person: PersonData, where: Whereabouts['where']): Presence[] {
    const before = this.views.get(view);
    // Another person's window cannot be spoken for.
    if (before && before.here.person !== person.id) return [];
    if (before && before.subject !== where?.id) this.leave(view, before);
    if (!where) return [];
    const { id: subject, ...rest } = where;
    const here: Presence = { view, person: person.id, name: person.name, colour: person.colour, ...rest };
    this.views.delete(view);
    this.views.set(view, { subject, here, at: performance.now() });
    const [oldest] = this.views;
    if (this.views.size > MOST_VIEWS && oldest) this.leave(...oldest);
    this.events.tell({ kind: 'here', subject, here });
    return [...this.views.values()].flatMap((one) =>
      one.subject === subject && one.here.view !== view ? [one.here] : [],
    );
  }

  private leave(view: string, { subject, here }: Held): void {
    this.views.delete(view);
    this.events.tell({ kind: 'here', subject, here: { ...here, selected: [], sees: null, left: true } });
  }

  private look(): void {
    for (const [view, held] of [...this.views])
      if (performance.now() - held.at > GONE_MS) this.leave(view, held);
  }
}
