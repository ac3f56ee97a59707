import { fail, Stop } from './say.mjs';

const HELP = `Maypole: seamless looping 3D motion.

  ./maypole start [--port N]        install what is missing, then serve; prints the address
            [--open NAME,…]           open to others, who need accounts, over TLS by
            [--certificate FILE --key FILE | --behind PROXY,…] [--listen ADDRESS]
  ./maypole stop                    end the application and its database
  ./maypole test [unit|e2e]         lint, types, unit and end-to-end tests
            [--all] [--busy N] [--throttle N]   with all that takes long; beside N busy loops; N times slower
  ./maypole check FILE… | --demo    the seam check, without browser or database
            [--json]                  exit status: 0 closed, 1 something does not close, 2 not a piece,
                                      3 files that it names are not there
  ./maypole draw FILE --to NAME.png|.exr   one frame in true light, without browser or database
            [--frame f] [--size WxH] [--samples n] [--error % --least n] [--denoise]
            [--bounces n|matt,mirror,glass,air] [--limit x|none] [--grain moves|stands]
            [--clear] [--passes] [--workers n]
  ./maypole render FILE|--piece NAME --to FOLDER   files in true light, without browser or server
            [--output KIND,…] [--frames a-b] [--size WxH] [--samples n] [--error %]
            [--denoise on|off] [--threads n] [--keep-frames]   goes on where it was broken off
  ./maypole work --server URL --key KEY   joins the renders of a server elsewhere
            [--threads n] [--light true|quick] [--name NAME]
  ./maypole backup FOLDER|FILE      everything that is kept, at one moment; it may run meanwhile
  ./maypole restore FILE [--replace]  brings a backup back; what was there is backed up first
            [--unsealed]              takes one of a Maypole that did not seal backups yet
  ./maypole export-all FOLDER       every piece as a file of its own
  ./maypole doctor [--json]         what is well, what is not, and what to do
  ./maypole trial [name] [--long]   trials that try to break it, in a folder of their own
  ./maypole bench [name] [--json]   benchmarks against public libraries
  ./maypole help                    this page

Data lives in .maypole/ inside the project; set MAYPOLE_DATA to keep it elsewhere, or
MAYPOLE_DATABASE=postgres://… to keep it on a database server that is there already.
MAYPOLE_BACKUPS=FOLDER has a backup made every day. Only this machine is served unless
--open is given. MAYPOLE_HOSTS lists further host names to answer to.`;

const commands = {
  start: () => import('./start.mjs'),
  stop: () => import('./stop.mjs'),
  test: () => import('./test.mjs'),
  check: () => import('./check.mjs'),
  draw: () => import('./draw.mjs'),
  render: () => import('./render.mjs'),
  work: () => import('./work.mjs'),
  doctor: () => import('./doctor.mjs'),
  trial: () => import('./trial.mjs'),
  bench: () => import('./bench.mjs'),
  backup: () => import('./backup.mjs').then((m) => ({ run: m.backup })),
  restore: () => import('./restore.mjs'),
  'export-all': () => import('./backup.mjs').then((m) => ({ run: m.exportAll })),
};

const [name = 'help', ...rest] = process.argv.slice(2);
if (Number(process.versions.node.split('.')[0]) < 20)
  fail(`Maypole needs Node.js 20 or newer; this is ${process.versions.node}.`);
if (name === 'help' || name === '--help' || name === '-h') console.log(HELP);
else if (!Object.hasOwn(commands, name)) {
  console.error(`There is no command “${name}”. Known: ${Object.keys(commands).join(', ')}, help.`);
  process.exit(2);
} else {
  try {
    await (await commands[name]()).run(rest);
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    console.error(error.message);
    process.exit(error.status);
  }
}
