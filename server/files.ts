import { RefusedFile } from '../core/files/refused-file';
import type { Asset } from '../core/template/composed';
import type { TemplateFile } from '../core/template/template-file';
import { findAsset, keepAsset, type Keeping } from './assets';
import type { Connection } from './db/database';
import { Problem } from './problem';

/** Looks a picture or PDF over and keeps it, for a template to name. @throws Problem with what is wrong with it */
export async function putFile(keeping: Keeping, bytes: Uint8Array): Promise<TemplateFile> {
  try {
    return await keepAsset(keeping, bytes);
  } catch (problem) {
    if (!(problem instanceof RefusedFile)) throw problem;
    throw new Problem(422, 'This file cannot be used', problem.message);
  }
}

/** A kept picture or PDF by its hash. @throws Problem */
export async function fileOf(connection: Connection, hash: string): Promise<Asset> {
  const asset = await findAsset(connection, hash);
  if (!asset) throw new Problem(404, 'No such file', 'This file is not here. Put it into the template again.');
  return asset;
}
