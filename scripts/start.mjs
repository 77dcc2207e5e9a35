import os from 'node:os';
import path from 'node:path';
import { giveUp, refuseIfTaken } from './data-folder.mjs';
import { ensureBuild, ensurePackages } from './ensure.mjs';

/** `npm start [-- --shop]`: serves the user's own data folder; with `--shop` on the local network too. */
const data = process.env.VINKEL_DATA ?? defaultDataFolder();
ensurePackages();
await refuseIfTaken(data).catch(giveUp);
ensureBuild();
const { serve } = await import('./serve.mjs');
const address = await serve({ port: Number(process.env.PORT ?? 3000), data, shop: process.argv.includes('--shop') });
console.log(`\nVinkel: ${address}\nData: ${data}\n`);

/** The user's data directory, as each system has it. */
function defaultDataFolder() {
  const home = os.homedir();
  if (process.platform === 'win32')
    return path.join(process.env.LOCALAPPDATA ?? path.join(home, 'AppData', 'Local'), 'Vinkel');
  if (process.platform === 'darwin') return path.join(home, 'Library', 'Application Support', 'Vinkel');
  return path.join(process.env.XDG_DATA_HOME ?? path.join(home, '.local', 'share'), 'vinkel');
}
