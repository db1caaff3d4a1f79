import { connect, createServer, type Server, type Socket } from 'node:net';

/** Sends bytes to a server on loopback and gives back all it answers, until it hangs up. */
export function sendRaw(base: string, bytes: string): Promise<string> {
  const { hostname, port } = new URL(base);
  return new Promise((resolve, reject) => {
    const socket = connect({ host: hostname, port: Number(port) });
    let said = '';
    socket.setEncoding('utf8');
    socket.on('data', (chunk: string) => {
      said += chunk;
    });
    socket.once('error', reject);
    socket.once('close', () => resolve(said));
    socket.write(bytes);
  });
}

/** One request, its target written as it is given, and what came back: the status and the text. */
export async function ask(
  base: string,
  target: string,
  headers: Readonly<Record<string, string>> = {},
  method = 'GET',
): Promise<{ readonly status: number; readonly text: string; readonly type: string }> {
  const lines = Object.entries({ host: 'localhost', connection: 'close', ...headers }).map(
    ([name, value]) => `${name}: ${value}`,
  );
  const answer = await sendRaw(base, `${method} ${target} HTTP/1.1\r\n${lines.join('\r\n')}\r\n\r\n`);
  return {
    status: Number(/^HTTP\/1\.1 (\d{3})/.exec(answer)?.[1]),
    type: /content-type: ([^;\r]+)/i.exec(answer)?.[1] ?? '',
    text: answer.slice(answer.indexOf('\r\n\r\n') + 4),
  };
}

/** A way to a database that can be cut and mended, so that one is away without anybody else losing theirs. */
export class Cable {
  readonly #to: { readonly host: string; readonly port: number };
  readonly #ends = new Set<Socket>();
  #server: Server | null = null;
  #port = 0;

  constructor(to: URL) {
    this.#to = { host: to.hostname, port: Number(to.port) };
  }

  /** The database's address by way of this cable. */
  urlOf(database: string): string {
    const url = new URL(database);
    url.hostname = '127.0.0.1';
    url.port = String(this.#port);
    return url.href;
  }

  async mend(): Promise<void> {
    const server = createServer((near) => {
      const far = connect(this.#to);
      for (const [end, other] of [
        [near, far],
        [far, near],
      ] as const) {
        this.#ends.add(end);
        end.on('error', () => other.destroy());
        end.once('close', () => {
          this.#ends.delete(end);
          other.destroy();
        });
        end.pipe(other);
      }
    });
    this.#server = server;
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(this.#port, '127.0.0.1', resolve);
    });
    const address = server.address();
    if (address && typeof address === 'object') this.#port = address.port;
  }

  async cut(): Promise<void> {
    const server = this.#server;
    this.#server = null;
    for (const end of this.#ends) end.destroy();
    if (server) await new Promise((resolve) => server.close(resolve));
  }
}
