import clsx from 'clsx';
import type { ReactNode, RefObject } from 'react';

interface Props {
  /** The room it has, and how large that is in CSS pixels. */
  box: RefObject<HTMLDivElement | null>;
  size: { width: number; height: number };
  /** What it shows, for those who hear it. */
  label: string;
  describedBy?: string;
  /** A group holds things to take hold of; an image is only looked at. */
  role?: 'img' | 'group';
  /** How the room itself lies on the page. */
  className: string;
  /** What it needs, CSS pixels, where that is known only from what it shows. */
  minHeight?: number;
  /** What lies under the lines, as a painted picture does. */
  under?: ReactNode;
  /** What lies over them. */
  over?: ReactNode;
  children: ReactNode;
}

/** A drawing that fills its room; nothing is drawn before the room has a size. */
export function Drawn({ box, size, label, describedBy, role = 'img', className, ...parts }: Props) {
  const { width, height } = size;
  return (
    <div
      ref={box}
      className={clsx('relative overflow-hidden', className)}
      style={parts.minHeight === undefined ? undefined : { minHeight: parts.minHeight }}
    >
      {width > 0 && (
        <>
          {parts.under}
          <svg
            width={width}
            height={height}
            role={role}
            aria-label={label}
            aria-describedby={describedBy}
            className="absolute inset-0 text-[12px]"
          >
            {parts.children}
          </svg>
        </>
      )}
      {parts.over}
    </div>
  );
}
