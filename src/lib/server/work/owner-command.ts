import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { openDatabase, type Db } from '../db/open';
import { renewal } from '../repo/invitations';
import { addPerson, byEmail, emailKey, onlyPerson, studioState } from '../repo/people';
import { statement } from '../repo/rows';
import { keyOf, newToken } from '../repo/tokens';
import { writing } from '../repo/context';
import { done } from '../../contract/failure';

/**
 * `owner NAME ADDRESS`: whoever may run this on the machine makes somebody an owner, or lets one in again who has lost their password.
 * It prints a link that they open once, and opens the studio. Answers the exit code.
 */
export function ownerCommand(folder: string, [name, email]: string[], say: (line: string) => void): number {
  if (!name || !email || !/^[^\s@<>]+@[^\s@<>]+$/.test(email)) {
    say('Say a name and an address: npm run isle -- owner "Mara Quill" mara@studio.example');
    return 2;
  }
  const file = join(folder, 'isle.db');
  if (!existsSync(file)) say(`There is no database in ${folder} yet; a new one is made.`);
  const db = openDatabase(file);
  try {
    const token = newToken();
    const made = writing(db, { what: 'person', name: email }, (tx) => {
      const id = ownerIn(tx, name, email);
      const link = renewal(tx, keyOf(token), id);
      return link.ok ? done({ id }) : link;
    });
    if (!made.ok) {
      say(made.failure.message);
      return 1;
    }
    const origin =
      process.env.ORIGIN || `http://${process.env.HOST || '127.0.0.1'}:${process.env.PORT || 4173}`;
    say(`${name} is an owner of the studio. Within two days, open this link once to set a password:`);
    say(`${origin}/join/${token}`);
    return 0;
  } finally {
    db.$client.close();
  }
}

/** The owner with an address: who has it already, the only person of a studio that is not opened, or a new one. */
function ownerIn(tx: Db, name: string, email: string): string {
  const opened = studioState(tx).opened;
  const known = byEmail(tx, email)?.id ?? (opened ? undefined : onlyPerson(tx));
  if (!opened) statement(tx, 'UPDATE studio SET opened_at = ? WHERE id = ?').run(Date.now(), tx.studio);
  if (known === undefined) return addPerson(tx, { name, role: 'owner', email, password: null });
  statement(tx, "UPDATE person SET name = ?, email = ?, role = 'owner', ends_at = NULL WHERE id = ?").run(
    name,
    emailKey(email),
    known,
  );
  return known;
}
