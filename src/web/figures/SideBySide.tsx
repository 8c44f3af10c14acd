import { Box, Button, Stack, Typography } from '@mui/material';
import { type KeyboardEvent, type ReactNode, type RefObject, useRef, useState } from 'react';
import { type ReactZoomPanPinchRef, TransformComponent, TransformWrapper } from 'react-zoom-pan-pinch';
import { NativeSelect } from '../kit/NativeSelect';
import { colours } from '../kit/theme';

/** Something that can be laid beside another. */
export interface Pane {
  readonly key: string;
  readonly label: string;
  readonly show: ReactNode;
}

interface Props {
  readonly title: string;
  readonly panes: readonly Pane[];
  /** What stands left and right at first. */
  readonly start: readonly [left: string, right: string];
}

const STEP = 0.5;
const MOST = 8;
const PAN_PX = 60;
/** Closer than this two views are the same, px. */
const SAME_PX = 0.01;

interface Position {
  readonly scale: number;
  readonly positionX: number;
  readonly positionY: number;
}

/** One of the two, with what is chosen to stand there. */
function Side({
  view,
  label,
  panes,
  pane,
  onPick,
  onMoved,
}: {
  readonly view: RefObject<ReactZoomPanPinchRef | null>;
  readonly label: string;
  readonly panes: readonly Pane[];
  readonly pane: Pane | undefined;
  readonly onPick: (key: string) => void;
  readonly onMoved: (to: Position) => void;
}) {
  return (
    <Stack spacing={0.5} sx={{ minWidth: 0 }}>
      {panes.length > 2 ? (
        <NativeSelect
          label={label}
          value={pane?.key ?? ''}
          options={panes.map(({ key, label: words }) => ({ value: key, label: words }))}
          onChange={onPick}
        />
      ) : (
        <Typography variant="body2">{pane?.label}</Typography>
      )}
      <Box
        sx={{
          border: `1px solid ${colours.edge}`,
          borderRadius: 1,
          overflow: 'hidden',
          aspectRatio: '4 / 3',
        }}
      >
        <TransformWrapper
          ref={view}
          maxScale={MOST}
          doubleClick={{ disabled: true }}
          onTransform={(_, state) => onMoved(state)}
        >
          <TransformComponent
            wrapperStyle={{ width: '100%', height: '100%' }}
            contentStyle={{ width: '100%', height: '100%' }}
          >
            <Box sx={{ width: '100%', height: '100%', display: 'grid', placeItems: 'center' }}>
              {pane?.show}
            </Box>
          </TransformComponent>
        </TransformWrapper>
      </Box>
    </Stack>
  );
}

/** Two pictures side by side, zoomed and moved together: by wheel, pinch and drag, or from the keyboard. */
export default function SideBySide({ title, panes, start }: Props) {
  const views = [useRef<ReactZoomPanPinchRef>(null), useRef<ReactZoomPanPinchRef>(null)] as const;
  const [scale, setScale] = useState(1);
  const [picked, setPicked] = useState(start);
  /** Brings the other view to where this one is; told of itself it stands there already. */
  const moveOther = (from: 0 | 1, to: Position): void => {
    setScale(to.scale);
    const other = views[from === 0 ? 1 : 0].current;
    if (!other) return;
    const { scale: its, positionX, positionY } = other.state;
    const apart =
      Math.abs(its - to.scale) + Math.abs(positionX - to.positionX) + Math.abs(positionY - to.positionY);
    if (apart > SAME_PX) void other.setTransform(to.positionX, to.positionY, to.scale, 0);
  };
  const zoom = (by: number): void => {
    const [view] = views;
    if (by > 0) void view.current?.zoomIn(STEP, 0);
    else void view.current?.zoomOut(STEP, 0);
  };
  const reset = (): void => void views[0].current?.resetTransform(0);
  const onKeyDown = (event: KeyboardEvent): void => {
    const view = views[0].current;
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [PAN_PX, 0],
      ArrowRight: [-PAN_PX, 0],
      ArrowUp: [0, PAN_PX],
      ArrowDown: [0, -PAN_PX],
    };
    const move = moves[event.key];
    if (event.key === '+' || event.key === '=') zoom(1);
    else if (event.key === '-') zoom(-1);
    else if (event.key === '0') reset();
    else if (move && view)
      void view.setTransform(
        view.state.positionX + move[0],
        view.state.positionY + move[1],
        view.state.scale,
        0,
      );
    else return;
    event.preventDefault();
  };
  return (
    <Stack spacing={1}>
      <Box
        role="group"
        aria-label={`${title}: arrow keys move both, plus and minus zoom, 0 shows all`}
        tabIndex={0}
        onKeyDown={onKeyDown}
        sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' } }}
      >
        {([0, 1] as const).slice(0, Math.max(1, panes.length)).map((index) => (
          <Side
            key={index}
            view={views[index]}
            label={index === 0 ? 'Left' : 'Right'}
            panes={panes}
            pane={panes.find(({ key }) => key === picked[index]) ?? panes[Math.min(index, panes.length - 1)]}
            onPick={(key) => setPicked(index === 0 ? [key, picked[1]] : [picked[0], key])}
            onMoved={(to) => moveOther(index, to)}
          />
        ))}
      </Box>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button variant="outlined" onClick={() => zoom(1)} aria-label="Zoom both in">
          +
        </Button>
        <Button variant="outlined" onClick={() => zoom(-1)} aria-label="Zoom both out">
          −
        </Button>
        <Button onClick={reset}>Show all of both</Button>
        <Typography variant="body2" role="status">
          {Math.round(scale * 100)} %
        </Typography>
      </Stack>
    </Stack>
  );
}
