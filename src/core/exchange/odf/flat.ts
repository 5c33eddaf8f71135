import { ODF_NAMESPACES } from './namespaces';

/** Bytes at the beginning of a document that hold its root. */
export const FLAT_HEAD = 4096;

/** Whether bytes begin like a document of ISO/IEC 26300 that is one XML file, 3.1.2 of its part 1. */
export function isFlatOdf(head: Uint8Array): boolean {
  const begin = new TextDecoder('latin1').decode(head.subarray(0, FLAT_HEAD));
  return (
    /^(?:\u00ef\u00bb\u00bf)?\s*</.test(begin) &&
    /<office:document[\s>]/.test(begin) &&
    begin.includes(ODF_NAMESPACES.office)
  );
}
