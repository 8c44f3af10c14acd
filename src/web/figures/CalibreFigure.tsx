import { Box, Typography } from '@mui/material';
import type { Calibre, Contact, Well } from '../../core/craft/movements';
import { colours } from '../kit/theme';

interface Props {
  readonly calibre: Calibre;
  /** Diameter of each well's cell in mm, by well. */
  readonly cellDiameterMm: (cellCode: string) => number | null;
  readonly size?: number;
  /** Places marked on it, millimetres from the centre. */
  readonly spots?: readonly { readonly xMm: number; readonly yMm: number }[];
  readonly onPick?: (spot: { readonly xMm: number; readonly yMm: number }) => void;
  /** Where the other hand is braced, millimetres from the centre. */
  readonly brace?: { readonly xMm: number; readonly yMm: number } | null;
  /** Whether the marks are told in words under it. */
  readonly legend?: boolean;
}

const HAIR = 0.2;
const NO_CELL_MM = 7;

/** A unit step in a direction, clockwise from 12, on a page whose y runs down. */
function towards(degrees: number): { readonly x: number; readonly y: number } {
  const angle = (degrees / 180) * Math.PI;
  return { x: Math.sin(angle), y: -Math.cos(angle) };
}

/** How the cell is held, drawn where the hand meets it. */
function Holder({ well, radius }: { readonly well: Well; readonly radius: number }) {
  const stroke = { stroke: colours.ink, strokeWidth: HAIR * 2, fill: 'none' } as const;
  const turned = `rotate(${well.pushDegrees})`;
  switch (well.heldBy) {
    case 'side lever':
      return (
        <g transform={turned}>
          <path
            d={`M${-radius * 0.7} ${-radius - 0.5} H${radius * 0.7} L${radius * 1.1} ${-radius * 0.4}`}
            {...stroke}
          />
          <circle cx={radius * 1.1} cy={-radius * 0.4} r={HAIR * 2} fill={colours.ink} />
        </g>
      );
    case 'clip on one side':
      return (
        <path
          transform={turned}
          d={`M${-radius * 0.6} ${-radius * 1.05} Q0 ${-radius * 0.45} ${radius * 0.6} ${-radius * 1.05}`}
          {...stroke}
        />
      );
    case 'sprung contact at the rim':
      return (
        <path
          transform={turned}
          d={`M${-radius * 0.6} ${-radius - 0.2} l${radius * 0.24} -0.7 l${radius * 0.24} 0.7 l${radius * 0.24} -0.7 l${radius * 0.24} 0.7 l${radius * 0.24} -0.7`}
          {...stroke}
        />
      );
    case 'screwed bridge':
      return (
        <g transform={turned}>
          <rect
            x={-radius * 1.2}
            y={-radius * 0.25}
            width={radius * 2.4}
            height={radius * 0.5}
            rx="0.3"
            {...stroke}
          />
          {[-1, 1].map((side) => (
            <circle key={side} cx={side * radius * 1.05} cy="0" r={HAIR * 2.2} {...stroke} />
          ))}
        </g>
      );
    case 'latch on a module':
    case 'latch worked in place':
      return (
        <path
          transform={turned}
          d={`M${-radius * 0.5} ${-radius - 0.9} v0.9 H${radius * 0.5} v-0.9`}
          {...stroke}
        />
      );
    case 'stacked light module':
      return <circle r={radius + 0.8} {...stroke} strokeDasharray="1.2 0.5" />;
    case 'lying free in its well':
      return <circle r={radius + 0.4} {...stroke} strokeDasharray="0.8 0.8" />;
    case 'under a hatch':
      return (
        <g transform={turned}>
          <circle r={radius + 0.6} {...stroke} />
          <line x1={-radius * 0.4} x2={radius * 0.4} y1={-radius * 0.55} y2={-radius * 0.55} {...stroke} />
        </g>
      );
    case 'from the dial side':
      return <circle r={radius + 0.5} {...stroke} strokeDasharray="0.3 0.6" />;
  }
}

const CONTACT_MARK: Readonly<Record<Contact['kind'], string>> = {
  plus: '+',
  minus: '−',
  reset: 'R',
  buzzer: 'B',
};

function described(calibre: Calibre, spots: number): string {
  const { code, widthMm, lengthMm, wells, coils, contacts } = calibre;
  const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;
  return [
    `Layout of ${code} from behind, ${widthMm} by ${lengthMm ?? widthMm} mm: ${counted(wells.length, 'cell place')}`,
    `${counted(coils.length, 'coil')} to keep clear of`,
    ...(contacts.length > 0 ? [counted(contacts.length, 'contact')] : []),
    ...(spots > 0 ? [`${spots} marked`] : []),
  ].join(', ');
}

function Patterns({ id }: { readonly id: string }) {
  return (
    <defs>
      <pattern
        id={`coil-${id}`}
        width="0.7"
        height="0.7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <line x1="0" y1="0" x2="0" y2="0.7" stroke={colours.cinnabar} strokeWidth="0.28" />
      </pattern>
      <marker
        id={`push-${id}`}
        viewBox="0 0 6 6"
        refX="5"
        refY="3"
        markerWidth="4"
        markerHeight="4"
        orient="auto-start-reverse"
      >
        <path d="M0 0 L6 3 L0 6 Z" fill={colours.ink} />
      </marker>
    </defs>
  );
}

function Outline({
  shape,
  widthMm,
  lengthMm,
}: {
  readonly shape: Calibre['shape'];
  readonly widthMm: number;
  readonly lengthMm: number;
}) {
  return shape === 'round' ? (
    <circle r={widthMm / 2} fill={colours.paper} stroke={colours.soot} strokeWidth={HAIR} />
  ) : (
    <rect
      x={-widthMm / 2}
      y={-lengthMm / 2}
      width={widthMm}
      height={lengthMm}
      rx="3"
      fill={colours.paper}
      stroke={colours.soot}
      strokeWidth={HAIR}
    />
  );
}

/** Coils, and round each the zone no tool enters. */
function Coils({ calibre }: { readonly calibre: Calibre }) {
  const keepClear = calibre.keepClearMm;
  return calibre.coils.map((coil, index) => (
    <g key={index} transform={`translate(${coil.xMm} ${-coil.yMm}) rotate(${coil.degrees})`}>
      <rect
        x={-coil.widthMm / 2 - keepClear}
        y={-coil.lengthMm / 2 - keepClear}
        width={coil.widthMm + 2 * keepClear}
        height={coil.lengthMm + 2 * keepClear}
        rx={keepClear}
        fill={colours.cinnabar}
        fillOpacity="0.1"
        stroke={colours.cinnabar}
        strokeWidth={HAIR * 0.7}
        strokeDasharray="0.5 0.4"
      />
      <rect
        x={-coil.widthMm / 2}
        y={-coil.lengthMm / 2}
        width={coil.widthMm}
        height={coil.lengthMm}
        fill={`url(#coil-${calibre.id})`}
        stroke={colours.cinnabar}
        strokeWidth={HAIR}
      />
    </g>
  ));
}

/** Wells with their holders, and which way the cell is pushed out. */
function Wells({ calibre, cellDiameterMm }: Pick<Props, 'calibre' | 'cellDiameterMm'>) {
  return calibre.wells.map((well) => {
    const radius = (calibre.charge?.diameterMm ?? cellDiameterMm(well.cellCode) ?? NO_CELL_MM) / 2;
    const push = towards(well.pushDegrees);
    const [from, to] = [radius + 0.4, radius + 2.6];
    return (
      <g key={well.name} transform={`translate(${well.xMm} ${-well.yMm})`}>
        <circle r={radius} fill={colours.tin} fillOpacity="0.55" stroke={colours.soot} strokeWidth={HAIR} />
        <text y={radius * 0.35} textAnchor="middle" fontSize={radius} fontWeight="700" fill={colours.soot}>
          {well.faceUp}
        </text>
        <Holder well={well} radius={radius} />
        <line
          x1={push.x * from}
          y1={push.y * from}
          x2={push.x * to}
          y2={push.y * to}
          stroke={colours.ink}
          strokeWidth={HAIR * 1.8}
          markerEnd={`url(#push-${calibre.id})`}
        />
      </g>
    );
  });
}

function Contacts({ contacts }: Pick<Calibre, 'contacts'>) {
  return contacts.map(({ kind, xMm, yMm }, index) => (
    <g key={index} transform={`translate(${xMm} ${-yMm})`}>
      <rect
        x="-0.75"
        y="-0.75"
        width="1.5"
        height="1.5"
        fill={colours.paper}
        stroke={colours.ink}
        strokeWidth={HAIR}
      />
      <text y="0.5" textAnchor="middle" fontSize="1.4" fontWeight="700" fill={colours.ink}>
        {CONTACT_MARK[kind]}
      </text>
    </g>
  ));
}

/** Where the other hand is braced. */
function Brace({ at }: { readonly at: NonNullable<Props['brace']> }) {
  return (
    <g transform={`translate(${at.xMm} ${-at.yMm})`}>
      <circle r="1.5" fill={colours.paper} stroke={colours.verdigris} strokeWidth="0.4" />
      <text y="0.65" textAnchor="middle" fontSize="1.9" fontWeight="700" fill={colours.verdigris}>
        B
      </text>
    </g>
  );
}

function Spots({ spots }: { readonly spots: NonNullable<Props['spots']> }) {
  return spots.map(({ xMm, yMm }, index) => (
    <g key={index} transform={`translate(${xMm} ${-yMm})`}>
      <rect
        x="-0.9"
        y="-0.9"
        width="1.8"
        height="1.8"
        transform="rotate(45)"
        fill={colours.cinnabar}
        stroke={colours.paper}
        strokeWidth="0.25"
      />
      <text y="0.5" textAnchor="middle" fontSize="1.4" fontWeight="700" fill={colours.paper}>
        {index + 1}
      </text>
    </g>
  ));
}

/**
 * The layout of a calibre seen from the back, to scale: outline, wells with their holders and the push, coils with the
 * zone no tool enters, contacts. Nothing of a calibre whose size is not known.
 */
export function CalibreFigure({
  calibre,
  cellDiameterMm,
  size = 220,
  spots = [],
  onPick,
  legend = true,
  brace = null,
}: Props) {
  const { widthMm } = calibre;
  if (widthMm === null)
    return <Typography variant="body2">No drawing. Enter the size in the book first.</Typography>;
  const lengthMm = calibre.lengthMm ?? widthMm;
  const halfMm = Math.max(widthMm, lengthMm) / 2 + 1.5;
  return (
    <Box>
      <svg
        width={size}
        height={size}
        viewBox={`${-halfMm} ${-halfMm} ${2 * halfMm} ${2 * halfMm}`}
        role="img"
        aria-label={described(calibre, spots.length)}
        style={{ cursor: onPick ? 'crosshair' : undefined, display: 'block' }}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const mm = (2 * halfMm) / box.width;
          const tenth = (value: number): number => Math.round(value * 10) / 10;
          onPick?.({
            xMm: tenth((event.clientX - box.left) * mm - halfMm),
            yMm: tenth(halfMm - (event.clientY - box.top) * mm),
          });
        }}
      >
        <Patterns id={calibre.id} />
        <Outline shape={calibre.shape} widthMm={widthMm} lengthMm={lengthMm} />
        <Coils calibre={calibre} />
        <Wells calibre={calibre} cellDiameterMm={cellDiameterMm} />
        <Contacts contacts={calibre.contacts} />
        {brace && <Brace at={brace} />}
        <Spots spots={spots} />
      </svg>
      {legend && (
        <Typography variant="body2" component="p">
          Seen from behind. Hatched: coil, do not touch. Dashed line: keep tools outside. Arrow: direction of
          the push.
          {brace ? ' B: brace the other hand here.' : ''}
          {calibre.contacts.length > 0 ? ' Squares: contacts. R: reset. B: buzzer.' : ''}
        </Typography>
      )}
    </Box>
  );
}
