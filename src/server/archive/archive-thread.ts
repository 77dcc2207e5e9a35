import { answer } from '../answer';
import { readRows } from './read-zip';

/** Reads and checks the rows of an archive in a thread of its own; bundled by scripts/bundle.mjs. */
await answer(readRows);
