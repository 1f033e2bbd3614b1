const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const SECOND = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });
const SHORT = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });

export const dayOf = (at: number): string => DAY.format(at);

/** When something was, as one says it: “14:05” today, “Yesterday, 14:05”, “3 Nov, 14:05”, and with the year where it is another. */
export function whenOf(at: number, now = Date.now()): string {
  const time = TIME.format(at);
  const [then, today] = [new Date(at), new Date(now)];
  if (then.toDateString() === today.toDateString()) return time;
  today.setDate(today.getDate() - 1);
  if (then.toDateString() === today.toDateString()) return `Yesterday, ${time}`;
  return then.getFullYear() === new Date(now).getFullYear() ? `${SHORT.format(at)}, ${time}` : DAY.format(at);
}

/** The same, with seconds within the last hour, where many things are of one minute. */
export const momentOf = (at: number, now = Date.now()): string =>
  now - at < 3_600_000 ? SECOND.format(at) : whenOf(at, now);
