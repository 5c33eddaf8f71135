import { createServer, type Server, type Socket } from 'node:net';
import { connect, type AddressInfo } from 'node:net';

/** A line between pages and the app that can be cut, and made slow. */
export class Between {
  private readonly sockets = new Set<Socket>();
  private server: Server | undefined;
  /** How long each piece takes on its way, in milliseconds. */
  delayMs = 0;
  cuts = 0;

  constructor(private readonly to: () => string) {}

  async open(): Promise<string> {
    const server = createServer((near) => {
      const { hostname, port } = new URL(this.to());
      const far = connect(Number(port), hostname);
      for (const [one, other] of [
        [near, far],
        [far, near],
      ] as const) {
        this.sockets.add(one);
        one.on('data', (piece) => setTimeout(() => other.writable && other.write(piece), this.delayMs));
        one.on('close', () => {
          this.sockets.delete(one);
          setTimeout(() => other.destroy(), this.delayMs);
        });
        one.on('error', () => {});
      }
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    this.server = server;
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  }

  /** Cuts some of the connections that are open now. */
  cut(share: number): void {
    for (const socket of this.sockets)
      if (Math.random() < share) {
        this.cuts++;
        socket.destroy();
      }
  }

  close(): void {
    this.server?.close();
    for (const socket of this.sockets) socket.destroy();
  }
}
