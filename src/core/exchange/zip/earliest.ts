/** The earliest time that a packed file can say, so that the same sheet gives the same file. */
export const EARLIEST = new Date(1980, 0, 1);
