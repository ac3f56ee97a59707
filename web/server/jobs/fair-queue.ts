/** One queue per client, served round robin: whoever asks much waits for themselves. */
export class FairQueue<T> {
  private readonly lines = new Map<string, T[]>();
  length = 0;

  /** Number of waiting jobs of a client. */
  of(client: string): number {
    return this.lines.get(client)?.length ?? 0;
  }

  push(client: string, item: T): void {
    const line = this.lines.get(client);
    if (line) line.push(item);
    else this.lines.set(client, [item]);
    this.length++;
  }

  /** The next job, from the eligible client served longest ago. */
  shift(may: (client: string) => boolean = () => true): T | undefined {
    for (const [client, line] of this.lines) {
      if (!may(client)) continue;
      const item = line.shift()!;
      // To the end of the round.
      this.lines.delete(client);
      if (line.length > 0) this.lines.set(client, line);
      this.length--;
      return item;
    }
    return undefined;
  }
}
