import { PDFArray, PDFDict, PDFName, PDFStream, type PDFDocument, type PDFObject } from '@cantoo/pdf-lib';

/** Actions that do something, by their type (ISO 32000-1, 12.6.4), and what they do. Going to a place or an address is not one. */
const ACTIONS: Readonly<Record<string, string>> = {
  JavaScript: 'runs a script', Launch: 'starts a program', SubmitForm: 'sends a form', ImportData: 'reads data from a file',
  ResetForm: 'empties a form', Rendition: 'plays media', Movie: 'plays media', Sound: 'plays media', GoToR: 'opens another file',
  GoToE: 'opens a file inside of it', RichMediaExecute: 'plays media', GoTo3DView: 'plays media', Hide: 'hides what it shows',
}; // prettier-ignore

/** Annotations that play or hold something (ISO 32000-1, 12.5.6). */
const ANNOTATIONS: Readonly<Record<string, string>> = {
  RichMedia: 'plays media', Screen: 'plays media', Movie: 'plays media', Sound: 'plays media', '3D': 'plays media',
  FileAttachment: 'holds another file',
}; // prettier-ignore

/** What a PDF would do besides being looked at: "runs a script"; undefined for one that does nothing. */
export function activeContent(document: PDFDocument): string | undefined {
  for (const [, object] of document.context.enumerateIndirectObjects()) {
    const found = activeIn(object);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Looks through one object and what stands directly in it; what it refers to is looked at by itself. */
function activeIn(object: PDFObject): string | undefined {
  const waiting: PDFObject[] = [object];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next instanceof PDFArray) waiting.push(...next.asArray());
    const dictionary = next instanceof PDFStream ? next.dict : next;
    if (!(dictionary instanceof PDFDict)) continue;
    const found = activeHere(dictionary);
    if (found !== undefined) return found;
    for (const value of dictionary.values()) waiting.push(value);
  }
  return undefined;
}

function activeHere(dictionary: PDFDict): string | undefined {
  if (dictionary.has(PDFName.of('JS'))) return ACTIONS.JavaScript;
  if (dictionary.has(PDFName.of('XFA'))) return 'holds a form that computes (XFA)';
  const named = (key: string, among: Readonly<Record<string, string>>) => {
    const value = dictionary.get(PDFName.of(key));
    const name = value instanceof PDFName ? value.decodeText() : '';
    return Object.hasOwn(among, name) ? among[name] : undefined;
  };
  return named('S', ACTIONS) ?? named('Subtype', ANNOTATIONS);
}
