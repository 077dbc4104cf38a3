import { AuthType, createClient, type WebDAVClient } from 'webdav';
import { PLACE_TIMEOUT, PlaceError, statusError, unreached, type Place } from './place';

/** A folder of a WebDAV server (RFC 4918). */
export class WebDav implements Place {
  readonly #client: WebDAVClient;

  constructor(
    { url, user, secret }: { url: string; user: string; secret: string },
    private readonly where: string,
  ) {
    this.#client = createClient(url, { authType: AuthType.Password, username: user, password: secret });
  }

  /** Sent with `If-None-Match: *`, so that no file is put in place of another (RFC 9110, 13.1.2). */
  async put(path: string, bytes: Uint8Array): Promise<'written' | 'taken'> {
    const send = () => this.#client.putFileContents(path, Buffer.from(bytes), { overwrite: false, signal: deadline() });
    return this.#asked(async () => {
      try {
        return (await send()) ? 'written' : 'taken';
      } catch (problem) {
        // The folder above is not there (RFC 4918, 9.7.1).
        if (statusOf(problem) !== 409 && statusOf(problem) !== 404) throw problem;
        await this.#makeFolders(path);
        return (await send()) ? 'written' : 'taken';
      }
    });
  }

  async read(path: string): Promise<Uint8Array | undefined> {
    return this.#asked(async () => {
      try {
        return new Uint8Array((await this.#client.getFileContents(path, { signal: deadline() })) as Buffer);
      } catch (problem) {
        if (statusOf(problem) === 404) return undefined;
        throw problem;
      }
    });
  }

  async test(): Promise<void> {
    await this.#asked(() => this.#client.getDirectoryContents('/', { signal: deadline() }));
  }

  async #makeFolders(path: string): Promise<void> {
    const names = path.split('/').slice(0, -1);
    for (const [at] of names.entries()) {
      const folder = names.slice(0, at + 1).join('/');
      await this.#client.createDirectory(folder, { signal: deadline() }).catch((problem: unknown) => {
        // It is there already (RFC 4918, 9.3.1).
        if (statusOf(problem) !== 405) throw problem;
      });
    }
  }

  async #asked<T>(act: () => Promise<T>): Promise<T> {
    try {
      return await act();
    } catch (problem) {
      const status = statusOf(problem);
      if (problem instanceof PlaceError) throw problem;
      throw status === undefined ? unreached(this.where) : statusError(status, this.where);
    }
  }
}

const deadline = () => AbortSignal.timeout(PLACE_TIMEOUT);
const statusOf = (problem: unknown): number | undefined => (problem as { status?: number }).status;
