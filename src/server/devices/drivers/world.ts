import type { CellTable } from '../../../core/craft/cells';
import type { AttachmentStore } from '../../attachments/attachments';

/** What a driver that runs at the server needs of the shop. */
export interface World {
  /** Another number at each reading, so that noise differs and a test can repeat it. */
  readonly seed: number;
  readonly attachments: AttachmentStore;
  readonly write: (words: string, jobId: string, technicianId: string) => void;
  readonly ticketOf: (jobId: string) => string | null;
  readonly nowUtc: () => string;
  readonly zone: () => string;
  readonly table: () => CellTable;
  /** How the owner of a job is reached, or null where they left nothing. */
  readonly reach: (jobId: string) => 'phone' | 'e-mail' | null;
  /** Where a tester’s files are expected. */
  readonly testerFolder: string;
}
