import { lockFolder } from '@/db/data-folder';

/** Takes a data folder and keeps it until killed. */
lockFolder(process.argv[2]!);
console.log('held');
setInterval(() => undefined, 1000);
