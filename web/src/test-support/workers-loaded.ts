import { afterAll } from "vitest";
import { FakeWorker } from "./fake-worker.ts";

// What a worker still loads behind the last test of a file would find the next one, or no environment any more.
afterAll(() => FakeWorker.loaded());
