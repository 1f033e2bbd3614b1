import type { Failure } from '$lib/contract/failure';
import type { App as IsleApp } from '$lib/server/app/app';

declare global {
  namespace App {
    interface Locals {
      app: IsleApp;
      /** What came to no route of ours, as a failure. */
      fault?: Failure;
    }
    interface Error {
      message: string;
    }
  }
}

export {};
