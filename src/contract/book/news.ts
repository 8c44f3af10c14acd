/** One revision of a record, as its history tells it. */
export interface RecordRevision {
  readonly revision: number;
  readonly body: object;
  readonly removed: boolean;
  readonly technicianId: string | null;
  readonly recordedAt: string;
}

/** What an import did, or would do. With errors it does nothing. */
export interface ImportReport {
  readonly table: string;
  readonly dryRun: boolean;
  readonly lines: number;
  readonly added: number;
  readonly changed: number;
  readonly same: number;
  /** The records that would change, each with its fields: the first ones. */
  readonly changes: readonly { readonly id: string; readonly fields: readonly string[] }[];
  /** The first places that cannot be taken. */
  readonly errors: readonly {
    readonly line: number;
    readonly column: string | null;
    readonly reason: string;
  }[];
  readonly errorsFound: number;
  /** How many lines cannot be taken. */
  readonly linesWrong: number;
  readonly applied: boolean;
}

/** What the server says while it reads a table: how far it is, and at last the report. */
export type ImportNews =
  { readonly progress: { readonly done: number; readonly of: number } } | { readonly report: ImportReport };
