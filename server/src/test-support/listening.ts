import type { AddressInfo } from "node:net";
import type { Express } from "express";

/** The application on a port of loopback, for what needs a real connection. */
export async function listening(
  app: Express,
): Promise<{ readonly port: number; readonly address: string; readonly close: () => Promise<void> }> {
  const server = app.listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  const { port } = server.address() as AddressInfo;
  return {
    port,
    address: `http://127.0.0.1:${port}`,
    close: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}
