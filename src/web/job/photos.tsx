import { Typography } from '@mui/material';
import type { Attachment } from '../../contract';
import type { JobState } from '../../core/logbook';
import { PhotoFigure, type PlacedMark } from '../figures/PhotoFigure';
import { useJob } from './JobContext';

/** The photographs of the opening: with what was found, with parts, each once. */
export function useMarkedPhotos(): readonly Picture[] {
  const { state, resource } = useJob();
  const { asFound, parts } = state.facts;
  const hashes = new Set([
    ...(asFound?.attachments ?? []),
    ...[...parts.values()].flatMap(({ off }) => off.attachments),
  ]);
  return picturesOf([...hashes], resource.attachments);
}

interface Picture {
  readonly hash: string;
  readonly name: string;
}

function picturesOf(hashes: readonly string[], files: readonly Attachment[]): readonly Picture[] {
  return hashes.flatMap((hash) => {
    const file = files.find((each) => each.hash === hash);
    return file?.contentType.startsWith('image/') ? [{ hash, name: file.name }] : [];
  });
}

/** How it looks as it is closed. */
export function usePhotosNow(): readonly Picture[] {
  const { state, resource } = useJob();
  return picturesOf(state.facts.now?.attachments ?? [], resource.attachments);
}

function marksOn(state: JobState, hash: string): PlacedMark[] {
  return state.facts.photoMarks
    .filter(({ payload }) => payload.photo === hash)
    .map(({ payload }) => ({
      ...payload,
      words: `${payload.kind}, ${payload.by === 'this shop' ? 'this shop' : 'an earlier hand'}${payload.note && `: ${payload.note}`}`,
    }));
}

interface Props {
  readonly hash: string;
  readonly placing?: { readonly xPercent: number; readonly yPercent: number };
  readonly onPlace?: (xPercent: number, yPercent: number) => void;
}

/** One photograph of the job with every mark that was set on it. */
export function MarkedPhoto({ hash, placing, onPlace }: Props) {
  const { state, resource } = useJob();
  const name = resource.attachments.find((each) => each.hash === hash)?.name ?? 'photograph';
  return (
    <PhotoFigure
      src={`/api/attachments/${hash}`}
      alt={name}
      marks={marksOn(state, hash)}
      {...(placing ? { placing } : {})}
      {...(onPlace ? { onPlace } : {})}
    />
  );
}

/** The marks of every photograph in words. */
export function MarksInWords() {
  const { state } = useJob();
  const photos = [...useMarkedPhotos(), ...usePhotosNow()];
  return photos.map(({ hash, name }) => {
    const marks = marksOn(state, hash);
    return marks.length === 0 ? null : (
      <Typography key={hash} variant="body2" sx={{ mt: 0.5 }}>
        {name}:{' '}
        {marks
          .map((mark, index) => `${index + 1} ${mark.by === 'an earlier hand' ? '○' : '□'} ${mark.words}`)
          .join('; ')}
      </Typography>
    );
  });
}
