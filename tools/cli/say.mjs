/** Ends the command with one clear sentence. */
export class Stop extends Error {
  constructor(message, status = 1) {
    super(message);
    this.status = status;
  }
}

export function fail(message, status = 1) {
  console.error(message);
  process.exit(status);
}

export function say(message) {
  console.log(message);
}

/** The value after a flag, removed from the list; undefined if the flag is missing. */
export function takeOption(args, flag) {
  const at = args.findIndex((a) => a === flag || a.startsWith(`${flag}=`));
  if (at < 0) return undefined;
  const [found] = args.splice(at, 1);
  if (found.includes('=')) return found.slice(flag.length + 1);
  if (args[at] === undefined) throw new Stop(`${flag} wants a value after it.`, 2);
  return args.splice(at, 1)[0];
}

/** Whether a flag is given; removes it from the list. */
export function takeFlag(args, flag) {
  const at = args.indexOf(flag);
  if (at >= 0) args.splice(at, 1);
  return at >= 0;
}
