import type { TemplateFile } from '#core/template/template-file';

/**
 * Has the server look a file over and keep it. Gives what it is, or in a sentence why it cannot be used. `instead`: what to do with a
 * file of the other kind.
 */
export async function keepFile(
  file: File,
  wanted: 'picture' | 'PDF',
  instead: string,
): Promise<{ kept: TemplateFile } | { refused: string }> {
  try {
    const kept = await api('POST /files', { body: file });
    const is = kept.mediaType === 'application/pdf' ? 'PDF' : 'picture';
    return is === wanted ? { kept } : { refused: `“${file.name}” is a ${is}. ${instead}` };
  } catch (thrown) {
    return { refused: `“${file.name}” was not taken. ${asProblem(thrown).detail}` };
  }
}
