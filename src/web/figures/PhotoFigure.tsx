import { Box } from '@mui/material';
import type { KeyboardEvent, MouseEvent } from 'react';
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

/** What one arrow key moves a mark by, percent of the picture. */
const STEP_PERCENT = 2;
const FINE_PERCENT = 0.5;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const share = (at: number, of: number): number => Math.round((1000 * at) / Math.max(1, of)) / 10;

/** A photograph with its marks: round for traces of earlier repairs, square for what this shop did, each with its number. */
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
          component="button"
          type="button"
          aria-label={`The mark: ${placing.xPercent} % across, ${placing.yPercent} % down. Arrow keys move it, with Shift in small steps`}
          onKeyDown={(event: KeyboardEvent) => {
            const [dx, dy] = ARROWS[event.key] ?? [0, 0];
            if (dx === 0 && dy === 0) return;
            event.preventDefault();
            const step = event.shiftKey ? FINE_PERCENT : STEP_PERCENT;
            const within = (at: number): number => Math.round(Math.min(100, Math.max(0, at)) * 10) / 10;
            onPlace?.(within(placing.xPercent + dx * step), within(placing.yPercent + dy * step));
          }}
          // Pressed it stays where it is: the picture beneath would place it anew.
          onClick={(event: MouseEvent) => event.stopPropagation()}
          sx={{
            p: 0,
            cursor: 'move',
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
