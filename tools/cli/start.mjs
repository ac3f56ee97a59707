import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { adopted, health, linkForOwner, prepareDatabase, serve } from './application.mjs';
import { backupSchedule, keepBackups } from './backup-schedule.mjs';
import { ensureBuild } from './build.mjs';
import { installedDatabase } from './database.mjs';
import { makeFolder, makeLogFolder, writePrivately } from './folders.mjs';
import { isSame } from './identity.mjs';
import { ensureDebian, ensureNpm } from './install.mjs';
import { takeOpening } from './opening.mjs';
import { DATA, LOGS } from './paths.mjs';
import { freePort, givenPort } from './ports.mjs';
import { endProcess, pause, waitFor } from './processes.mjs';
import { Tries } from './tries.mjs';
import { busyWith, dropLock, forgetRunning, noteRunning, runningInstance, runningNow, takeLock } from './running.mjs';
import { say, Stop, takeOption } from './say.mjs';

/** How long another start may take, building and installing included, in milliseconds. */
const STARTING = 600_000;
/** Milliseconds between checks of the database. */
const WATCH = 1000;
/** How often a crashing application is restarted, and within how many milliseconds. */
const APPLICATION = { times: 5, within: 600_000 };

export async function run(args) {
  const asked = takeOption(args, '--port');
  const opening = takeOpening(args);
  if (args.length > 0)
    throw new Stop(
      `start does not know “${args[0]}”; it takes --port N, and, to be open to others, --open NAMES with --certificate and --key, or --behind PROXY.`,
      2,
    );
  const schedule = backupSchedule();
  makeFolder(DATA);
  for (;;) {
    const holder = takeLock('start');
    if (!holder) break;
    if (holder.doing !== 'start') await endOf(holder);
    else if (await runsBy(holder)) return;
  }
  process.on('exit', dropLock);
  const cluster = installedDatabase();
  const orphan = runningNow();
  // Its command was killed: this one supervises it from here on, unless it does not answer.
  let application = orphan.application && (await adopted(orphan));
  if (orphan.application && !application) await endProcess(orphan.application.pid);
  let ending = false;
  const end = async (status) => {
    if (ending) return;
    ending = true;
    await application?.stop();
    await cluster.stop();
    forgetRunning();
    process.exit(status);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  if (application) {
    await cluster.start();
    say(`Maypole already runs at ${application.address}`);
    say('The command that had started it is gone; this one keeps it from here on.');
  } else {
    const port = asked === undefined ? await freePort(4173) : await givenPort(asked);
    // These make movies of rendered frames.
    await ensureDebian({ '/usr/bin/ffmpeg': 'ffmpeg', '/usr/bin/ffprobe': 'ffmpeg' });
    await ensureNpm();
    await ensureBuild();
    writePrivately();
    makeLogFolder();
    const url = await cluster.start();
    let ownerLink;
    try {
      await prepareDatabase(url, true);
      application = await serve(url, port, withSettings(opening), path.join(DATA, 'temporary'));
      ownerLink = opening && (await linkForOwner(url, application.address));
    } catch (error) {
      await cluster.stop();
      throw error;
    }
    say(`Maypole is ready at ${application.address}`);
    if (ownerLink) say(`There is no owner yet. This link makes one, once: ${ownerLink}`);
  }
  const tries = new Tries(APPLICATION);
  const keepApplication = () => {
    noteRunning(application);
    application.onExit(async () => {
      if (ending) return;
      const last = application.log().trim().split('\n').slice(-12).join('\n');
      console.error(`The application ended by itself${last ? `:\n${last}` : '.'}`);
      if (!tries.another()) {
        console.error(
          `It has ended ${APPLICATION.times + 1} times within ${APPLICATION.within / 60_000} minutes, and is not started again. ./maypole doctor looks for what is wrong.`,
        );
        return end(1);
      }
      try {
        writePrivately();
        const port = Number(new URL(application.local).port);
        const url = await cluster.start();
        if (ending) return;
        application = await serve(url, port, withSettings(opening), path.join(DATA, 'temporary'));
        if (ending) return void application.stop();
        console.error(`It is started again at ${application.address}.`);
        keepApplication();
      } catch (error) {
        console.error(error.message);
        if (!ending) void end(1);
      }
    });
  };
  keepApplication();
  say('Ctrl-C ends it.');
  void keepDatabase(cluster, () => ending, end);
  if (schedule) void keepBackups(cluster, schedule);
}

/** The application's environment: its log, and, if open to others, the secret of its sessions. */
function withSettings(opening = {}) {
  return {
    ...opening,
    env: {
      ...opening.env,
      MAYPOLE_LOGS: LOGS,
      MAYPOLE_SECRET: sessionSecret(),
      MAYPOLE_PUBLIC_ADDRESS: opening.address?.(0),
    },
  };
}

/** Created once; with another one, everyone has to sign in again. */
function sessionSecret() {
  const file = path.join(DATA, 'session-secret');
  if (!existsSync(file) || readFileSync(file, 'utf8').trim().length < 32)
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

/** Waits for an uninterruptible command that works on the data. */
async function endOf(holder) {
  say(`The data is just being ${holder.doing} by another command; Maypole starts as soon as that is done.`);
  while (isSame(holder) && busyWith()) await pause(200);
}

/**
 * Another command has the lock: Maypole is running, starting or just stopping. Reports its address; false if it is not
 * running and the lock is free.
 */
async function runsBy(holder) {
  const up = () => runningInstance();
  if (!up()) say('Maypole is being started by another command…');
  const until = Date.now() + STARTING;
  for (;;) {
    if (!(await waitFor(() => up() || !isSame(holder), STARTING)) || Date.now() > until)
      throw new Stop('The other command that is starting Maypole does not come to an end; ./maypole stop ends it.');
    if (!isSame(holder)) return false;
    const other = up();
    // One that is just stopping is not reported.
    if (other && (await health(other.local)) !== undefined) {
      say(`Maypole already runs at ${other.address}`);
      return true;
    }
    await pause(200);
  }
}

/** Restarts the database if it stops, for as long as this command runs. */
async function keepDatabase(cluster, isEnding, end) {
  let failures = 0;
  const look = async () => {
    if (isEnding()) return;
    if (!cluster.running()) {
      console.error('The database ended by itself; it is started again.');
      try {
        await cluster.start();
        failures = 0;
      } catch (error) {
        console.error(error.message);
        // A permanent fault.
        if (++failures >= 5) return end(1);
      }
    }
    setTimeout(() => void look(), WATCH);
  };
  setTimeout(() => void look(), WATCH);
}
