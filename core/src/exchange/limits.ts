/** What a file may bring. Beyond it the file is refused with the number, never cut in silence. */
export const FILE_LIMITS = {
  bytes: 25 * 1024 * 1024,
  /** Of everything in an archive, unpacked. */
  unpackedBytes: 120 * 1024 * 1024,
  /** Unpacked bytes a packed byte may stand for. */
  unpackedRatio: 200,
  /** The words of a text document with how they look: some thousand pages. It is held as a whole, several times as large. */
  documentXml: 20 * 1024 * 1024,
  archiveEntries: 2_000,
  records: 20_000,
  /** Rows of data, which are smaller than requirements. */
  rows: 100_000,
  columns: 300,
  cell: 200_000,
  xmlDepth: 100,
  /** Levels of lists and quotations. */
  markdownDepth: 100,
  problems: 500,
} as const;
