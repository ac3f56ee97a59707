import { FRONT, type FrontFigures } from './figures';

/** A token bucket. */
class Allowance {
  private left: number;
  private at: number;
  constructor(
    private readonly most: number,
    private readonly perSecond: number,
    now: number,
  ) {
    this.left = most;
    this.at = now;
  }
  private fill(now: number): void {
    this.left = Math.min(this.most, this.left + ((now - this.at) / 1000) * this.perSecond);
    this.at = now;
  }
  /** Takes an amount; returns the seconds to wait if there is not enough, and then takes nothing. */
  take(amount: number, now: number): number {
    this.fill(now);
    if (this.left < amount) return Math.ceil((Math.min(amount, this.most) - this.left) / this.perSecond);
    this.left -= amount;
    return 0;
  }
  full(now: number): boolean {
    this.fill(now);
    return this.left >= this.most;
  }
}

interface Turn {
  connections: number;
  requests: number;
  /** Requests being worked on. */
  working: number;
  readonly line: (() => void)[];
  readonly asked: Allowance;
  readonly sent: Allowance;
}

/** Why a request has to wait, and for how many seconds. */
interface Wait {
  readonly error: string;
  readonly seconds: number;
}

/** Requests and quotas of each client. Quiet clients are forgotten. */
export class Turns {
  private readonly clients = new Map<string, Turn>();
  private connections = 0;
  constructor(
    private readonly figures: FrontFigures = FRONT,
    private readonly now: () => number = Date.now,
  ) {}

  private of(client: string): Turn {
    let turn = this.clients.get(client);
    if (!turn) {
      this.forget();
      const now = this.now();
      turn = {
        connections: 0,
        requests: 0,
        working: 0,
        line: [],
        asked: new Allowance(this.figures.burst, this.figures.perSecond, now),
        sent: new Allowance(this.figures.bytes, this.figures.bytesPerSecond, now),
      };
      this.clients.set(client, turn);
    }
    return turn;
  }

  /** A client whose quotas are full again equals a new one. */
  private forget(): void {
    if (this.clients.size < 1000) return;
    const now = this.now();
    for (const [name, t] of this.clients)
      if (t.connections === 0 && t.requests === 0 && t.asked.full(now) && t.sent.full(now)) this.clients.delete(name);
  }

  /** Whether another connection is accepted; each accepted one is returned by `disconnected`. */
  connected(client: string): boolean {
    const turn = this.of(client);
    if (turn.connections >= this.figures.connections || this.connections >= this.figures.allConnections) return false;
    turn.connections++;
    this.connections++;
    return true;
  }
  disconnected(client: string): void {
    this.of(client).connections--;
    this.connections--;
  }

  /** Begins a request with a declared body size; undefined if it may proceed, and must be ended by `end`. */
  begin(client: string, bytes: number): Wait | undefined {
    const turn = this.of(client);
    if (turn.requests >= this.figures.requests)
      return {
        error: `There are ${this.figures.requests} requests of yours under way; this one has to wait for them.`,
        seconds: 1,
      };
    const now = this.now();
    const asked = turn.asked.take(1, now);
    if (asked > 0)
      return {
        error: `This is asked too often: ${this.figures.perSecond} times a second is the most for long.`,
        seconds: asked,
      };
    const sent = bytes > 0 ? turn.sent.take(bytes, now) : 0;
    if (sent > 0)
      return { error: 'So much was sent within a short time that more has to wait a little.', seconds: sent };
    turn.requests++;
    return undefined;
  }

  /** Works on a request, at once or when an earlier one has ended. */
  work(client: string, begin: () => void): void {
    const turn = this.of(client);
    if (turn.working >= this.figures.together) return void turn.line.push(begin);
    turn.working++;
    begin();
  }

  /** Ends a request, whether it was worked on or waited in vain. */
  end(client: string, begin: () => void): void {
    const turn = this.of(client);
    turn.requests--;
    const waiting = turn.line.indexOf(begin);
    if (waiting >= 0) return void turn.line.splice(waiting, 1);
    const next = turn.line.shift();
    if (next) next();
    else turn.working--;
  }

  /** Current numbers of connections, requests and clients. */
  counts(): { connections: number; requests: number; clients: number } {
    let requests = 0;
    for (const t of this.clients.values()) requests += t.requests;
    return { connections: this.connections, requests, clients: this.clients.size };
  }
}
