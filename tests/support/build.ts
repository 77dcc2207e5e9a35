import { ensureBuild } from '../../scripts/ensure.mjs';

/** Builds once before the browser tests: two servers that find no build would both start one. */
export const setup = (): void => ensureBuild();
