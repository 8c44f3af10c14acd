import { Box } from '@mui/material';
import type { MouseEvent } from 'react';
import type { LEFT_BY } from '../../core/logbook';
import { colours } from '../kit/theme';

export interface PlacedMark {
  readonly xPercent: number;
  readonly yPercent: number;
  readonly by: (typeof LEFT_BY)[number];
  readonly words: string;
}

interface Props {
  readonly src: string;
  readonly alt: string;
  readonly marks: readonly PlacedMark[];
  /** Where a mark is being placed. */
  readonly placing?: { readonly xPercent: number; readonly yPercent: number } | null;
  readonly onPlace?: (xPercent: number, yPercent: number) => void;
}

const share = (at: number, of: number): number => Math.round((1000 * at) / Math.max(1, of)) / 10;

/** A photograph with its marks: round what an earlier hand left, square what this shop did, each with its number. */
export function PhotoFigure({ src, alt, marks, placing = null, onPlace }: Props) {
  const place = (event: MouseEvent<HTMLElement>): void => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    onPlace?.(share(event.clientX - left, width), share(event.clientY - top, height));
  };
  return (
    <Box
      component="figure"
      sx={{ m: 0, position: 'relative', width: '100%', cursor: onPlace ? 'crosshair' : 'default' }}
      onClick={onPlace ? place : undefined}
    >
      <Box
        component="img"
        src={src}
        alt={`${alt}${marks.length > 0 ? `, marked: ${marks.map(({ words }) => words).join('; ')}` : ''}`}
        sx={{ width: '100%', display: 'block', borderRadius: 1, border: `1px solid ${colours.smoke}` }}
      />
      {marks.map((mark, index) => (
        <Box
          key={index}
          aria-hidden
          sx={{
            position: 'absolute',
            left: `${mark.xPercent}%`,
            top: `${mark.yPercent}%`,
            transform: 'translate(-50%, -50%)',
            width: 28,
            height: 28,
            display: 'grid',
            placeItems: 'center',
            fontWeight: 700,
            borderRadius: mark.by === 'an earlier hand' ? '50%' : 0.5,
            bgcolor: colours.paper,
            color: colours.soot,
            border: `2px solid ${colours.soot}`,
          }}
        >
          {index + 1}
        </Box>
      ))}
      {placing && (
        <Box
          aria-hidden
          sx={{
            position: 'absolute',
            left: `${placing.xPercent}%`,
            top: `${placing.yPercent}%`,
            transform: 'translate(-50%, -50%)',
            width: 34,
            height: 34,
            borderRadius: '50%',
            border: `3px dashed ${colours.cinnabar}`,
            bgcolor: 'rgba(255, 253, 246, 0.4)',
          }}
        />
      )}
    </Box>
  );
}
