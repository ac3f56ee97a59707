import { readdirSync, readFileSync, readlinkSync } from 'node:fs';

/** What tells a process from any later one that gets its number: when it began, and since which start of the machine. */
export function identityOf(pid) {
  const began = beganAt(pid);
  return began === undefined ? undefined : { pid, began };
}

/** Whether a process that was noted down is still that one. */
export function isSame(identity) {
  return (
    Number.isInteger(identity?.pid) && typeof identity.began === 'string' && beganAt(identity.pid) === identity.began
  );
}

function beganAt(pid) {
  try {
    // Behind the name, which may have spaces and brackets in it, the 20th word (proc(5), /proc/pid/stat).
    const words = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1).split(' ');
    // One that has ended, and is only not yet asked for its status, is none.
    if (words[0] === 'Z' || words[0] === 'X') return undefined;
    return `${readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim()}/${words[19]}`;
  } catch {
    return undefined;
  }
}

/** Processes whose command line, its words each ended by a zero, is as wanted. */
export function processesBy(wanted) {
  return found((pid) => wanted(readFileSync(`/proc/${pid}/cmdline`, 'utf8')));
}

/** Processes that work in a folder, as far as one may look. */
export function processesIn(folder) {
  return found((pid) => readlinkSync(`/proc/${pid}/cwd`) === folder);
}

/** Processes that have a variable of the environment set so, as far as one may look. */
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
