import type { Calibre, Revision } from './types';

/** A calibre as one of its revisions is built. An unknown or empty name gives the calibre as it stands. */
export function asRevision(calibre: Calibre, name: string | null): Calibre {
  const revision = calibre.revisions.find((each) => each.name === name);
  return revision ? built(calibre, revision) : calibre;
}

function built(calibre: Calibre, revision: Revision): Calibre {
  return {
    ...calibre,
    heightMm: revision.heightMm ?? calibre.heightMm,
    jewels: revision.jewels ?? calibre.jewels,
    wells: calibre.wells.map((well, index) =>
      index === 0
        ? {
            ...well,
            cellCode: revision.cellCode ?? well.cellCode,
            heldBy: revision.heldBy ?? well.heldBy,
          }
        : well,
    ),
  };
}

/** The revisions among which nobody told yet; empty where one was, or there is only one. */
export function openRevisions(calibre: Calibre | null, named: string | null): readonly Revision[] {
  return calibre === null || named !== null ? [] : calibre.revisions;
}

/** Movement and revision in words: `OR 41.6, revision B`. */
export function calibreWords(code: string, revision: string | null): string {
  return revision === null || revision === '' ? code : `${code}, revision ${revision}`;
}
