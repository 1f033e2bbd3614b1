/** A message that would be sent, where there were a mail server. */
export type Letter = { to: string; subject: string; text: string; link: string; at: number };

const MOST = 100;

/** The simulated mailbox of the demo: what Isle would send, kept in memory alone. */
export class Outbox {
  private letters: Letter[] = [];

  send(letter: Omit<Letter, 'at'>): void {
    this.letters = [{ ...letter, at: Date.now() }, ...this.letters].slice(0, MOST);
  }

  list(): readonly Letter[] {
    return this.letters;
  }
}
