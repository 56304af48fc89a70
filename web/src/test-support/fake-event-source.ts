type Listener = (event: { readonly data: string }) => void;

/** A stream of the server's events that a test speaks through. */
export class FakeEventSource {
  static readonly CLOSED = 2;
  /** Those that listen, the newest last. */
  static all: FakeEventSource[] = [];
  readyState = 1;
  private readonly listeners = new Map<string, Listener[]>();

  constructor(readonly address: string) {
    FakeEventSource.all.push(this);
  }

  addEventListener(event: string, listener: Listener): void {
    this.listeners.set(event, [...(this.listeners.get(event) ?? []), listener]);
  }

  /** Lets it say something; `open` and `error` carry nothing. */
  say(event: string, data: unknown = null): void {
    for (const listener of this.listeners.get(event) ?? []) listener({ data: JSON.stringify(data) });
  }

  /** Is refused: a browser does not try such a stream again. */
  refuse(): void {
    this.readyState = FakeEventSource.CLOSED;
    this.say("error");
  }
}
