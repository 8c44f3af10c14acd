import { Stack, Typography } from '@mui/material';
import { PhotoFigure, type PlacedMark } from '../figures/PhotoFigure';
import { useJob } from './JobContext';

/** The photographs of the opening: with what was found, with parts, each once. */
export function useMarkedPhotos(): readonly { readonly hash: string; readonly name: string }[] {
  const { state, resource } = useJob();
  const { asFound, parts } = state.facts;
  const hashes = new Set([
    ...(asFound?.attachments ?? []),
    ...[...parts.values()].flatMap(({ off }) => off.attachments),
  ]);
  return [...hashes].flatMap((hash) => {
    const file = resource.attachments.find((each) => each.hash === hash);
    return file?.contentType.startsWith('image/') ? [{ hash, name: file.name }] : [];
  });
}

interface Props {
  readonly hash: string;
  readonly placing?: { readonly xPercent: number; readonly yPercent: number };
  readonly onPlace?: (xPercent: number, yPercent: number) => void;
  /** Whether the marks are told in words under it. */
  readonly listed?: boolean;
}

/** One photograph of the job with every mark that was set on it. */
export function MarkedPhoto({ hash, placing, onPlace, listed = false }: Props) {
  const { state, resource } = useJob();
  const name = resource.attachments.find((each) => each.hash === hash)?.name ?? 'photograph';
  const marks = state.facts.photoMarks
    .filter(({ payload }) => payload.photo === hash)
    .map(({ payload }): PlacedMark => ({
      ...payload,
      words: `${payload.kind}, ${payload.by === 'this shop' ? 'this shop' : 'an earlier hand'}${payload.note && `: ${payload.note}`}`,
    }));
  return (
    <Stack spacing={0.5}>
      <PhotoFigure
        src={`/api/attachments/${hash}`}
        alt={name}
        marks={marks}
        {...(placing ? { placing } : {})}
        {...(onPlace ? { onPlace } : {})}
      />
      {listed &&
        marks.map((mark, index) => (
          <Typography key={index} variant="body2">
            {index + 1} {mark.by === 'an earlier hand' ? '○' : '□'} {mark.words}
          </Typography>
        ))}
    </Stack>
  );
}
