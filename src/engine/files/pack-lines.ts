/** Letters that are packed at once. */
const AT_ONCE = 65_536;

/** Text as it comes, in UTF-8 and packed with gzip (RFC 1952). */
export async function packLines(lines: AsyncIterable<string>): Promise<Blob> {
  const packer = new CompressionStream('gzip');
  const packed = new Response(packer.readable).blob();
  const writer = packer.writable.getWriter();
  const encoder = new TextEncoder();
  try {
    let piece = '';
    // One piece is packed while the next is made.
    let packing = Promise.resolve();
    for await (const text of lines) {
      piece += text;
      if (piece.length < AT_ONCE) continue;
      await packing;
      packing = writer.write(encoder.encode(piece));
      // A failure is thrown where it is waited for.
      packing.catch(() => {});
      piece = '';
    }
    await packing;
    await writer.write(encoder.encode(piece));
    await writer.close();
  } catch (error) {
    await writer.abort(error);
    await packed.catch(() => {});
    throw error;
  }
  return packed;
}
