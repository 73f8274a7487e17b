/** An answer that is JSON already: what a thread worked out for it need not be taken apart and put together again on the server's own. */
export class JsonText<T> {
  /** Of what it is the JSON; for types alone. */
  declare readonly of: T;
  constructor(readonly text: string) {}
}
