import type { ReactNode } from 'react';

/** A page of the step that is read rather than drawn on. */
export function Page({
  title,
  about,
  children,
}: {
  title: string;
  about: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-paper px-5 py-4">
      <h1 className="text-[18px] font-semibold">{title}</h1>
      <p className="max-w-[72ch] pb-4 text-quiet">{about}</p>
      {children}
    </div>
  );
}

/** One large figure with what it is. */
export function Big({
  name,
  figure,
  unit,
  tone,
  children,
}: {
  name: ReactNode;
  figure: string;
  unit?: string;
  tone?: string;
  children?: ReactNode;
}) {
  return (
    <div className="min-w-36 border-t-2 border-ink pt-1">
      <p className="text-quiet">{name}</p>
      <p className={tone}>
        <span className="figure text-[28px] leading-9">{figure}</span>
        {unit && <span className="ml-1 text-[14px] text-quiet">{unit}</span>}
      </p>
      {children && <p className="text-[13px] text-quiet">{children}</p>}
    </div>
  );
}
