import { useId } from 'react';
import {
  backgroundBlur,
  backgroundScale,
  sideOf,
  trimmed,
  type MatchedPicture,
  type MatchedSide,
} from '@gangway/station';

const WIDE = 200;
const FIGURE_MM = 1700;
const POST_MM = 2600;

/** The frame as it comes out: somebody 1.7 m tall, and posts 2.6 m tall behind, with their blur to scale. */
export function MatchFrame({
  picture,
  behindMm,
  side,
  label,
}: {
  picture: MatchedPicture;
  behindMm: number;
  side: MatchedSide;
  label: string;
}) {
  const id = useId();
  const { sides, magnification } = picture;
  const high = (WIDE * sides.heightMm) / sides.widthMm;
  const perMm = WIDE / sides.widthMm;
  const tall = FIGURE_MM * magnification * perMm;
  const scale = backgroundScale(picture, behindMm);
  const post = POST_MM * magnification * scale * perMm;
  const disc = backgroundBlur(picture, behindMm, side) * sideOf(sides, side) * perMm;
  const [cx, cy] = [WIDE / 2, high / 2];
  const gap = post * 0.42;
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${high}`}
      role="img"
      aria-label={`${label}: posts behind at ${trimmed(scale * 100, 0)} % of the subject’s scale, blurred over ${trimmed((disc / WIDE) * 100, 2)} % of the width`}
      className="mt-2 w-full max-w-56 bg-glass text-ink outline-1 outline-rule-strong"
    >
      <filter id={id} x="-20%" y="-20%" width="140%" height="140%">
        <feGaussianBlur stdDeviation={Math.min(30, disc / 3)} />
      </filter>
      <g filter={`url(#${id})`} fill="var(--rule-strong)">
        {[-4, -3, -2, -1, 0, 1, 2, 3, 4].map((n) => (
          <rect
            key={n}
            x={cx + n * gap - post * 0.035}
            y={cy - post / 2}
            width={post * 0.07}
            height={post}
          />
        ))}
        <rect x={-20} y={cy + post / 2} width={WIDE + 40} height={1.5} />
      </g>
      <g fill="var(--ink)">
        <circle cx={cx} cy={cy - tall / 2 + tall * 0.07} r={tall * 0.07} />
        <path
          d={`M ${cx - tall * 0.11} ${cy - tall * 0.33} h ${tall * 0.22} l ${-tall * 0.03} ${tall * 0.83} h ${-tall * 0.16} Z`}
        />
      </g>
    </svg>
  );
}
