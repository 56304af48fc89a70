import { threadId } from "node:worker_threads";

/** Test files run in threads of one process, and a channel reaches all of them: here it reaches its own thread only. */
class OwnChannel extends BroadcastChannel {
  constructor(name: string) {
    super(`${name}/${threadId}`);
  }
}

globalThis.BroadcastChannel = OwnChannel;
