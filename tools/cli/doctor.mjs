import { createHash, X509Certificate } from 'node:crypto';
import { accessSync, constants, existsSync, readFileSync, statfsSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { health } from './application.mjs';
import { backupSchedule, hoursToNext } from './backup-schedule.mjs';
import { isBuilt } from './build.mjs';
import { installedDatabase } from './database.mjs';
import { DATA, LOGS, ROOT } from './paths.mjs';
import { runningNow } from './running.mjs';
import { say, Stop, takeFlag } from './say.mjs';

const GB = 1e9;
/** Gigabytes of disk and memory below which something will fail soon. */
const LOW = { disk: 2, memory: 1 };

/** The checks: what was checked, whether it is well, and what to do if not. */
const LOOKS = [
  () => {
    const version = process.versions.node;
    return Number(version.split('.')[0]) >= 20
      ? well(`Node.js is ${version}.`)
      : ill(`Node.js is ${version}, and 20 or newer is needed.`, 'Install a newer one.');
  },
  () => {
    const stamp = path.join(ROOT, 'node_modules/.maypole-lock');
    const hash = createHash('sha256')
      .update(readFileSync(path.join(ROOT, 'package-lock.json')))
      .update(process.version)
      .digest('hex');
    return existsSync(stamp) && readFileSync(stamp, 'utf8') === hash
      ? well('The npm packages are those of the lock file.')
      : ill('The npm packages are not those of the lock file.', './maypole start installs them.');
  },
  () =>
    isBuilt()
      ? well('The application is built from its present source.')
      : ill('The application is not built from its present source.', './maypole stop, then ./maypole start builds it.'),
  () => {
    try {
      accessSync(existsSync(DATA) ? DATA : path.dirname(DATA), constants.W_OK);
      return well(`The data folder ${DATA} can be written.`);
    } catch {
      return ill(`The data folder ${DATA} cannot be written.`, 'Allow it, or set MAYPOLE_DATA to another folder.');
    }
  },
  () => {
    const { bavail, bsize } = statfsSync(existsSync(DATA) ? DATA : path.dirname(DATA));
    const free = (bavail * bsize) / GB;
    const words = `${free.toFixed(1)} GB are free on the disk of the data.`;
    return free >= LOW.disk ? well(words) : ill(words, 'Make room on it: saves fail on a full disk.');
  },
  () => {
    const free = availableMemory() / GB;
    const words = `${free.toFixed(1)} GB of memory are free, of ${(os.totalmem() / GB).toFixed(1)}.`;
    return free >= LOW.memory
      ? well(words)
      : ill(words, 'End other programs, or add memory: renders and imports need it.');
  },
  async () => {
    const { keeper, application, address, local } = runningNow();
    if (!keeper && !application) return well('Maypole is not running; ./maypole start starts it.');
    if (!application) return well('Maypole is just being started.');
    if (!address) return ill('An application runs whose address is lost.', './maypole stop ends it.');
    const status = await health(local);
    if (status === 200)
      return keeper
        ? well(`Maypole answers at ${address}.`)
        : ill(`Maypole answers at ${address}, but the command that kept it is gone.`, './maypole start takes it over.');
    if (status === 503)
      return ill('Maypole answers, and its database does not.', 'Wait a moment, or ./maypole stop and start.');
    return ill(`Maypole does not answer at ${address}.`, './maypole stop, then ./maypole start.');
  },
  async () => {
    if (process.env.MAYPOLE_DATABASE) {
      await installedDatabase().start();
      return well('The database that MAYPOLE_DATABASE names can be used.');
    }
    const database = installedDatabase();
    if (!existsSync(path.join(database.files, 'PG_VERSION')))
      return well('There is no database yet; the first start makes it.');
    return well(`The database is there, and ${database.running() ? 'runs' : 'does not run now'}.`);
  },
  () => {
    const file = path.join(LOGS, 'maypole.jsonl');
    if (!existsSync(file)) return well('There is no log yet.');
    const day = Date.now() - 86_400_000;
    const faults = readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((line) => {
        try {
          return [JSON.parse(line)];
        } catch {
          return [];
        }
      })
      .filter((line) => line.level >= 50 && Date.parse(line.time) > day);
    return faults.length === 0
      ? well('The log tells of no fault within a day.')
      : ill(
          `The log tells of ${faults.length} faults within a day, the last at ${faults.at(-1).time}: ${String(faults.at(-1).error).split('\n')[0].slice(0, 160)}`,
          `See ${file}.`,
        );
  },
  () => {
    const schedule = backupSchedule();
    if (!schedule) return well('No backups are made by themselves; MAYPOLE_BACKUPS=FOLDER has them made.');
    if (!existsSync(schedule.folder))
      return ill(`There is no folder ${schedule.folder} for backups.`, 'Make it, or start Maypole, which does.');
    const late = hoursToNext({ ...schedule, hours: schedule.hours * 2 }) === 0;
    return late
      ? ill(
          `The latest backup in ${schedule.folder} is older than ${schedule.hours * 2} hours.`,
          'Let Maypole run, or ./maypole backup by hand.',
        )
      : well(`There is a backup in ${schedule.folder} from the last ${schedule.hours * 2} hours.`);
  },
  () => {
    const file = process.env.MAYPOLE_CERTIFICATE;
    if (!file) return undefined;
    const days = (Date.parse(new X509Certificate(readFileSync(file)).validTo) - Date.now()) / 86_400_000;
    const words = `The certificate ${file} is good for ${Math.floor(days)} more days.`;
    return days > 14 ? well(words) : ill(words, 'Get a new one.');
  },
];

const well = (words) => ({ well: true, words });
const ill = (words, remedy) => ({ well: false, words, remedy });

/** Memory available without swapping (proc(5), MemAvailable). */
function availableMemory() {
  const kilobytes = /^MemAvailable:\s+(\d+)/m.exec(readFileSync('/proc/meminfo', 'utf8'))?.[1];
  return kilobytes ? Number(kilobytes) * 1024 : os.freemem();
}

/** Reports in one page what is well, what is not, and what to do; exit status 1 if something is not. */
export async function run(args) {
  const json = takeFlag(args, '--json');
  if (args.length > 0) throw new Stop(`doctor does not know “${args[0]}”; it takes --json.`, 2);
  const found = [];
  for (const look of LOOKS) {
    try {
      const one = await look();
      if (one) found.push(one);
    } catch (error) {
      found.push(ill(error.message, 'Mend this first.'));
    }
  }
  const troubles = found.filter((f) => !f.well);
  if (json) say(JSON.stringify(found, null, 2));
  else {
    for (const f of found) say(f.well ? `  ✓ ${f.words}` : `  ! ${f.words}\n    ${f.remedy}`);
    say(
      troubles.length === 0
        ? '\nAll is well.'
        : `\n${troubles.length} ${troubles.length === 1 ? 'thing wants' : 'things want'} mending.`,
    );
  }
  process.exitCode = troubles.length === 0 ? 0 : 1;
}
