interface Waiting {
  readonly begin: () => void;
  readonly owner: string;
}

/** Locks of one browser as its tabs see them; a tab that is closed lets all of its go. */
export class FakeLocks {
  private readonly queues = new Map<string, Waiting[]>();

  /** The locks as one tab has them. */
  of(owner: string): LockManager {
    const request = async (name: string, ...rest: readonly unknown[]): Promise<unknown> => {
      const act = rest.at(-1) as () => unknown;
      const { signal } = (rest.length > 1 ? rest[0] : {}) as { signal?: AbortSignal };
      await this.granted(name, owner, signal);
      try {
        return await act();
      } finally {
        this.next(name);
      }
    };
    return { request, query: () => Promise.resolve({}) };
  }

  /** Ends a tab, however it does. */
  close(owner: string): void {
    for (const [name, queue] of this.queues) {
      const holds = queue[0]?.owner === owner;
      this.queues.set(
        name,
        queue.filter((each, i) => i === 0 || each.owner !== owner),
      );
      if (holds) this.next(name);
    }
  }

  private granted(name: string, owner: string, signal: AbortSignal | undefined): Promise<void> {
    const queue = this.queues.get(name) ?? [];
    this.queues.set(name, queue);
    return new Promise((resolve, reject) => {
      const waiting: Waiting = { owner, begin: resolve };
      queue.push(waiting);
      if (queue[0] === waiting) resolve();
      else {
        signal?.addEventListener("abort", () => {
          if (queue[0] === waiting) return;
          queue.splice(queue.indexOf(waiting), 1);
          reject(new DOMException("given up", "TimeoutError"));
        });
      }
    });
  }

  private next(name: string): void {
    const queue = this.queues.get(name);
    queue?.shift();
    queue?.[0]?.begin();
  }
}
