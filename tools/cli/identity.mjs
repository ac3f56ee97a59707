import { readdirSync, readFileSync, readlinkSync } from 'node:fs';

/** Identifies a process beyond its reusable pid: its start time, and the boot of the machine. */
export function identityOf(pid) {
  const began = beganAt(pid);
  return began === undefined ? undefined : { pid, began };
}

/** Whether a recorded process is still the same. */
export function isSame(identity) {
  return (
    Number.isInteger(identity?.pid) && typeof identity.began === 'string' && beganAt(identity.pid) === identity.began
  );
}

function beganAt(pid) {
  try {
    // After the name, which may contain spaces and brackets, field 20 (proc(5), /proc/pid/stat).
    const words = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1).split(' ');
    // A zombie has ended.
    if (words[0] === 'Z' || words[0] === 'X') return undefined;
    return `${readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim()}/${words[19]}`;
  } catch {
    return undefined;
  }
}

/** Processes whose command line, with words terminated by zero bytes, matches. */
export function processesBy(wanted) {
  return found((pid) => wanted(readFileSync(`/proc/${pid}/cmdline`, 'utf8')));
}

/** Processes whose working directory is a folder, as far as permissions allow. */
export function processesIn(folder) {
  return found((pid) => readlinkSync(`/proc/${pid}/cwd`) === folder);
}

/** Processes with an environment variable of this value, as far as permissions allow. */
export function processesWith(name, value) {
  return found((pid) => `\0${readFileSync(`/proc/${pid}/environ`, 'utf8')}`.includes(`\0${name}=${value}\0`));
}

function found(wanted) {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return wanted(pid) && beganAt(pid) !== undefined;
      } catch {
        return false;
      }
    })
    .map(Number);
}
