import { gunzipSync } from 'node:zlib';

/** A packed sheet as it is kept and sent (gzip), unpacked for reading: a buffer of its own. */
export function unzipPacked(packed: Uint8Array): ArrayBuffer {
  const bytes = gunzipSync(packed);
  return bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
}
