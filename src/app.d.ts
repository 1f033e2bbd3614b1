import type { App as IsleApp } from '$lib/server/app/app';

declare global {
  namespace App {
    interface Locals {
      app: IsleApp;
    }
    interface Error {
      message: string;
    }
  }
}

export {};
