import { Link } from 'react-router';

/** A page that needs a layout, without one. */
export function Nothing({ title }: { title: string }) {
  return (
    <div className="flex min-h-0 flex-1 items-center justify-center bg-paper px-5 py-10">
      <div className="max-w-[44ch] space-y-3">
        <h1 className="text-[22px] leading-7 font-semibold">{title}</h1>
        <p className="text-quiet">Lay out the frames first, or say what you wish for.</p>
        <p className="flex gap-4">
          <Link
            to="../mosaic"
            className="inline-flex min-h-9 items-center underline pointer-coarse:min-h-11"
          >
            Lay out frames
          </Link>
          <Link
            to="../mosaic/wish"
            className="inline-flex min-h-9 items-center underline pointer-coarse:min-h-11"
          >
            Wish
          </Link>
        </p>
      </div>
    </div>
  );
}
