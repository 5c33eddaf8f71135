/** Text as it comes, in UTF-8 and packed with gzip (RFC 1952). */
export async function packLines(lines: AsyncIterable<string>): Promise<Blob> {
  const packer = new CompressionStream('gzip');
  const packed = new Response(packer.readable).blob();
  const writer = packer.writable.getWriter();
  const encoder = new TextEncoder();
  try {
    for await (const text of lines) {
      // One piece is packed while the next is made; a failure is told by what is waited for after it.
      await writer.ready;
      writer.write(encoder.encode(text)).catch(() => {});
    }
    await writer.close();
  } catch (error) {
    await writer.abort(error);
    await packed.catch(() => {});
    throw error;
  }
  return packed;
}
