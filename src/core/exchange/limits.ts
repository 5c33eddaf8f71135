/** Limits of reading a file, so that a hostile one is refused in bounded time and memory. */
export const LIMITS = {
  /** Fields of a sheet. */
  fields: 1000,
  /** Rows of a sheet. */
  rows: 1_000_000,
  /** Rules of a sheet. */
  rules: 1000,
  /** Parts of a sheet: merged cells, names, looks, snapshots and the like. */
  sheetParts: 10_000,
  /** Cells of a sheet that hold something. */
  cells: 12_000_000,
  /** The same of a file that is held whole while it is read: a workbook, records of JSON. */
  cellsHeld: 5_000_000,
  /** Bytes of a file as it comes. */
  fileBytes: 256 * 1024 * 1024,
  /** Bytes of all parts of a packed file, unpacked. */
  unpackedBytes: 512 * 1024 * 1024,
  /** Parts of a packed file. */
  parts: 2000,
  /** UTF-16 code units of one cell. */
  cellText: 100_000,
  /** UTF-16 code units between two line ends that are no part of a cell. */
  line: 20_000_000,
  /** Elements of an XML part within one another. */
  depth: 200,
} as const;
