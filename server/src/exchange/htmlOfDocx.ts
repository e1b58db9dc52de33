/**
 * The words of a text document as HTML, without its pictures. Other files are never read, whatever the document says.
 * @throws {Error} on what it cannot read.
 */
export async function htmlOfDocx(bytes: Uint8Array): Promise<string> {
  // Read only when it is needed: it would make every start longer.
  const { default: mammoth } = await import('mammoth');
  const { value } = await mammoth.convertToHtml({ buffer: Buffer.from(bytes) }, { convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })), externalFileAccess: false });
  return value;
}
