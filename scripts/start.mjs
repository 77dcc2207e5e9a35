import os from 'node:os';
import path from 'node:path';
import { giveUp, refuseIfTaken } from './data-folder.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';

/**
 * `npm start [-- --shop | --alone]`: serves the user's own data folder; with `--shop` on the local network too, with `--alone` on this
 * machine alone again, where nobody is asked for a passphrase.
 */
const data = process.env.VINKEL_DATA ?? defaultDataFolder();
ensurePackages();
await refuseIfTaken(data).catch(giveUp);
ensureBuild();
const { serve } = await import('./serve.mjs');
const said = (word) => process.argv.includes(word);
const port = Number(process.env.PORT ?? 3000);
const address = await serve({ port, data, shop: said('--shop'), alone: said('--alone') });
console.log(`\nVinkel: ${address}\nData: ${data}\n`);

/** The user's data directory, as each system has it. */
function defaultDataFolder() {
  const home = os.homedir();
  if (process.platform === 'win32')
    return path.join(process.env.LOCALAPPDATA ?? path.join(home, 'AppData', 'Local'), 'Vinkel');
  if (process.platform === 'darwin') return path.join(home, 'Library', 'Application Support', 'Vinkel');
  return path.join(process.env.XDG_DATA_HOME ?? path.join(home, '.local', 'share'), 'vinkel');
}
