import { AwsClient } from 'aws4fetch';
import { PLACE_TIMEOUT, statusError, unreached, type Place } from './place';

/** A bucket of a storage service that speaks S3, at an address with the bucket as its first folder. */
export class S3 implements Place {
  readonly #client: AwsClient;
  readonly #bucket: string;

  constructor(
    {
      url,
      bucket,
      region,
      user,
      secret,
    }: { url: string; bucket: string; region: string; user: string; secret: string },
    private readonly where: string,
  ) {
    // Whoever asks tries again by themselves.
    this.#client = new AwsClient({ accessKeyId: user, secretAccessKey: secret, region, service: 's3', retries: 0 });
    this.#bucket = `${url.replace(/\/+$/, '')}/${encodeURIComponent(bucket)}`;
  }

  /** Sent with `If-None-Match: *`, so that no object is put in place of another. */
  async put(path: string, bytes: Uint8Array): Promise<'written' | 'taken'> {
    const headers = { 'if-none-match': '*', 'content-type': 'application/pdf' };
    const { status } = await this.#ask(path, { method: 'PUT', headers, body: Buffer.from(bytes) });
    if (status === 412) return 'taken';
    if (status >= 300) throw statusError(status, this.where);
    return 'written';
  }

  async read(path: string): Promise<Uint8Array | undefined> {
    const { status, bytes } = await this.#ask(path, { method: 'GET' });
    if (status === 404) return undefined;
    if (status >= 300) throw statusError(status, this.where);
    return bytes;
  }

  async test(): Promise<void> {
    const { status } = await this.#ask('', { method: 'HEAD' });
    if (status >= 300) throw statusError(status, this.where);
  }

  async #ask(path: string, request: RequestInit): Promise<{ status: number; bytes: Uint8Array }> {
    const address = [this.#bucket, ...path.split('/').filter(Boolean).map(encodeURIComponent)].join('/');
    try {
      const answer = await this.#client.fetch(address, { ...request, signal: AbortSignal.timeout(PLACE_TIMEOUT) });
      return { status: answer.status, bytes: new Uint8Array(await answer.arrayBuffer()) };
    } catch {
      throw unreached(this.where);
    }
  }
}
