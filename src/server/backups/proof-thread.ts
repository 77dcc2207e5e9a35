import { answer } from '../answer';
import { proveBackup, type Proof } from './prove';

/** Proves a backup in a thread of its own; bundled by scripts/bundle.mjs. */
await answer((proof: Proof) => proveBackup(proof));
