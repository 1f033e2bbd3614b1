import type { Failure } from '$lib/contract/failure';
import type { PersonData } from '$lib/contract/people';
import type { App as IsleApp } from '$lib/server/app/app';
import type { Db } from '$lib/server/db/open';

declare global {
  namespace App {
    interface Locals {
      app: IsleApp;
      /** Who asks; `null` where nobody is signed in. */
      person: PersonData | null;
      /** The database as it is asked by them. */
      db: Db;
      /** What came to no route of ours, as a failure. */
      fault?: Failure;
    }
    interface Error {
      message: string;
    }
  }
}

export {};
