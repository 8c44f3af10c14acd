import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { crosswise } from '../../core/craft/closing';
import { colours } from '../kit/theme';

const SIZE = 190;
const MIDDLE = SIZE / 2;
const ROUND = 66;

/** The screws of a plate, seen from behind, with the order of a round beside each; the one that comes next is filled. */
export function ScrewRound({ count }: { readonly count: number }) {
  const [turned, setTurned] = useState(0);
  const order = crosswise(count);
  const at = turned % count;
  const place = (screw: number, radius: number) => {
    const angle = (((screw - 1) / count) * 2 - 0.5) * Math.PI;
    return { x: MIDDLE + radius * Math.cos(angle), y: MIDDLE + radius * Math.sin(angle) };
  };
  return (
    <Box>
      <svg
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        width={SIZE}
        role="img"
        aria-label={`Plate with ${count} screws, seen from behind, tightened in the order ${order.join(', ')}; next is ${order[at]}.`}
      >
        <circle
          cx={MIDDLE}
          cy={MIDDLE}
          r={ROUND + 16}
          fill={colours.tin}
          stroke={colours.soot}
          strokeWidth="1.5"
        />
        {order.map((screw, index) => {
          const { x, y } = place(screw, ROUND);
          const label = place(screw, ROUND - 24);
          const isNext = index === at;
          return (
            <g key={screw}>
              <circle
                cx={x}
                cy={y}
                r="9"
                fill={isNext ? colours.soot : colours.paper}
                stroke={colours.soot}
                strokeWidth={isNext ? 3 : 1.5}
              />
              <line
                x1={x - 5}
                x2={x + 5}
                y1={y}
                y2={y}
                stroke={isNext ? colours.paper : colours.soot}
                strokeWidth="2"
              />
              <text
                x={label.x}
                y={label.y + 5}
                textAnchor="middle"
                fontSize="14"
                fontWeight={isNext ? 700 : 400}
                fill={colours.soot}
              >
                {index + 1}
              </text>
            </g>
          );
        })}
        <text x={MIDDLE} y="11" textAnchor="middle" fontSize="11" fill={colours.smoke}>
          12
        </text>
      </svg>
      <Box>
        <Button size="small" variant="outlined" onClick={() => setTurned(turned + 1)}>
          Next screw: {order[(at + 1) % count]}
        </Button>
      </Box>
    </Box>
  );
}
