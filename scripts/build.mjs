import { build, ensurePackages } from './lib/ensure.mjs';

ensurePackages();
build();
