import { constants, setPriority } from 'node:os';
import { answer } from '../answer';
import { proveBackup, type Proof } from './prove';

// Nobody waits for a proof: it takes what the shop leaves of the processors. Elsewhere this would be said of the whole program.
if (process.platform === 'linux') setPriority(constants.priority.PRIORITY_LOW);

/** Proves a backup in a thread of its own; bundled by scripts/bundle.mjs. */
await answer((proof: Proof) => proveBackup(proof));
