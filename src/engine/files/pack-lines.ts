/** Text as it comes, in UTF-8 and packed with gzip (RFC 1952). */
export async function packLines(lines: AsyncIterable<string>): Promise<Blob> {
  const packer = new CompressionStream('gzip');
  const packed = new Response(packer.readable).blob();
  const writer = packer.writable.getWriter();
  const encoder = new TextEncoder();
  try {
    for await (const text of lines) await writer.write(encoder.encode(text));
    await writer.close();
  } catch (error) {
    await writer.abort(error);
    await packed.catch(() => {});
    throw error;
  }
  return packed;
}
