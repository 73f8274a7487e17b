/**
 * One direction of a serial line: bytes go in at once and come out at the line's rate. Ten bits carry a byte. The clock
 * starts with the first byte of a burst, so that idle time is not saved up.
 */
export class Line {
  private queue: Uint8Array[] = [];
  private waiting = 0;
  private timer: NodeJS.Timeout | undefined;
  private since = 0;
  private owed = 0;

  constructor(
    private bitsPerSecond: () => number,
    private deliver: (bytes: Uint8Array) => void,
  ) {}

  /** Bytes that have not come out yet. */
  get backlog(): number {
    return this.waiting;
  }

  put(bytes: Uint8Array): void {
    if (bytes.length === 0) return;
    this.queue.push(bytes);
    this.waiting += bytes.length;
    if (this.timer) return;
    this.since = performance.now();
    this.owed = 0;
    this.timer = setInterval(() => this.tick(), 4);
  }

  /** Throws away what is on the line. */
  clear(): void {
    clearInterval(this.timer);
    this.timer = undefined;
    this.queue = [];
    this.waiting = 0;
  }

  private tick(): void {
    const now = performance.now();
    this.owed += ((now - this.since) / 1000) * (this.bitsPerSecond() / 10);
    this.since = now;
    let due = Math.floor(this.owed);
    this.owed -= due;
    const out: Uint8Array[] = [];
    while (due > 0 && this.queue.length > 0) {
      const head = this.queue[0]!;
      const part = head.subarray(0, due);
      out.push(part);
      due -= part.length;
      this.waiting -= part.length;
      if (part.length === head.length) this.queue.shift();
      else this.queue[0] = head.subarray(part.length);
    }
    if (this.queue.length === 0) {
      clearInterval(this.timer);
      this.timer = undefined;
    }
    if (out.length > 0) this.deliver(Buffer.concat(out));
  }
}
