import { colours } from '../kit/theme';

/** The seal that ends a signed job, with the technician's initials pressed in. */
export function WaxSeal({ initials, size = 84 }: { readonly initials: string; readonly size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 100 100" role="img" aria-label={`Signed ${initials}`}>
      <path
        d="M50 3c9 0 13 6 21 9s15 5 18 14 1 14 4 23 5 15 1 23-12 10-18 17-10 9-19 8-15-2-24-2-17-1-22-9-3-16-6-24-4-15 1-23 6-13 12-20S41 3 50 3z"
        fill={colours.tin}
        stroke={colours.soot}
        strokeWidth="2.5"
      />
      <circle
        cx="50"
        cy="50"
        r="31"
        fill="none"
        stroke={colours.soot}
        strokeWidth="2"
        strokeDasharray="3 3"
      />
      <text
        x="50"
        y="60"
        textAnchor="middle"
        fontSize={initials.length > 2 ? 22 : 29}
        fontWeight="700"
        fill={colours.soot}
        fontFamily="inherit"
      >
        {initials}
      </text>
    </svg>
  );
}
