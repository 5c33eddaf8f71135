/** Rows of texts, the header among them, each as wide as the first. */
export interface Table {
  readonly rows: readonly (readonly string[])[];
  readonly width: number;
}

/** Why a file cannot be read as a table. */
export interface TableProblem {
  /** Where in the file: a line, a record. */
  readonly place: string;
  readonly message: string;
}
