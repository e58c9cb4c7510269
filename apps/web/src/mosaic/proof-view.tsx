import { useEffect, useMemo, useRef, useState } from 'react';
import { boxOf, type Look } from '@gangway/frames';
import { Drawn } from '../drawing/drawn.js';
import { sheetAt } from '../drawing/sheet.js';
import { usePanKeys, usePanZoom } from '../drawing/use-pan-zoom.js';
import type { Seen } from '../drawing/zoomed.js';
import { useSize } from '../drawing/use-size.js';
import { proofDesk } from './proof-desk.js';
import type { Looked, Proved } from './proof-messages.js';
import { ProofMarks } from './proof-marks.js';

/** CSS pixels for each pixel of a frame, at the closest. */
const CLOSEST = 16;
/** Room round the picture, px. */
const PAD = 34;

/** Frames laid together, as close as one likes, with what was found over them. */
export function ProofView({ proved, held }: { proved: Proved; held: ProofHold }) {
  const [box, size] = useSize<HTMLDivElement>();
  const { proof, plan } = proved;
  const bounds = useMemo(
    () => boxOf(proof.frames, { pitchMm: proof.pitchMm, cylinderMm: plan.cylinderMm }) ?? NOTHING,
    [proof, plan],
  );
  const fit = useMemo((): Seen => {
    const [across, up] = [bounds.rightMm - bounds.leftMm, bounds.topMm - bounds.footMm];
    return {
      x: (bounds.leftMm + bounds.rightMm) / 2,
      y: (bounds.topMm + bounds.footMm) / 2,
      scale: Math.max(
        1e-3,
        Math.min((size.width - 2 * PAD) / across, (size.height - 2 * PAD) / up),
      ),
    };
  }, [bounds, size]);
  const one = 1 / proof.pitchMm;
  const panZoom = usePanZoom(box, size, fit, [Math.min(fit.scale, one) / 2, CLOSEST * one], held);
  const { seen, zoom, look } = panZoom;
  const onKeyDown = usePanKeys(panZoom);
  const sheet = sheetAt(
    size.width / 2 - seen.x * seen.scale,
    size.height / 2 + seen.y * seen.scale,
    seen.scale,
  );
  const percent = Math.round((100 * seen.scale) / one);
  return (
    // It is looked over with the keys.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      className="relative flex min-h-0 flex-1 touch-none flex-col contain-content"
      role="group"
      aria-label="Frames laid together; arrows move, plus and minus go closer and farther"
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
      onKeyDown={onKeyDown}
    >
      <Drawn
        {...{ box, size }}
        label={`${proof.frames.length} frames laid where they were found, ${proof.overlaps.length} overlaps`}
        className="min-h-[min(80vw,22rem)] flex-1 cursor-grab active:cursor-grabbing lg:min-h-0"
        under={<ProofCanvas {...{ size, seen, fit, cut: held.cut, proved }} />}
      >
        {held.marks && <ProofMarks {...{ proved, sheet }} />}
      </Drawn>
      <div className="flex flex-wrap items-center gap-x-4 bg-stage px-3 text-[13px]">
        <Toggle on={held.marks} onChange={held.putMarks}>
          Arrows
        </Toggle>
        <Toggle on={held.cut} onChange={held.putCut}>
          Seams
        </Toggle>
        <span className="flex-1" />
        <button type="button" className={LOOK} onClick={() => look(fit)}>
          Whole
        </button>
        <button type="button" className={LOOK} onClick={() => look({ ...seen, scale: one })}>
          100 %
        </button>
        <button type="button" className={LOOK} onClick={() => look({ ...seen, scale: 2 * one })}>
          200 %
        </button>
        <button type="button" className={LOOK} aria-label="Farther" onClick={() => zoom(1 / 1.5)}>
          −
        </button>
        <span className="figure min-w-12 text-center" role="status" aria-label="Size">
          {percent} %
        </span>
        <button type="button" className={LOOK} aria-label="Closer" onClick={() => zoom(1.5)}>
          +
        </button>
      </div>
    </div>
  );
}

const NOTHING = { leftMm: -1, rightMm: 1, topMm: 1, footMm: -1 };

const LOOK =
  'min-h-9 min-w-7 text-quiet hover:text-ink pointer-coarse:min-h-11 pointer-coarse:min-w-11';

/** What of the view is kept by the page. */
export interface ProofHold {
  readonly seen: Seen | null;
  readonly put: (seen: Seen | null) => void;
  readonly cut: boolean;
  readonly putCut: (cut: boolean) => void;
  readonly marks: boolean;
  readonly putMarks: (marks: boolean) => void;
}

export function useProofHold(): ProofHold {
  const [seen, put] = useState<Seen | null>(null);
  const [cut, putCut] = useState(false);
  const [marks, putMarks] = useState(true);
  return { seen, put, cut, putCut, marks, putMarks };
}

function Toggle({ on, onChange, children }: { on: boolean; onChange: (on: boolean) => void; children: string }) {
  return (
    <label className="flex min-h-9 items-center gap-1.5 pointer-coarse:min-h-11">
      <input type="checkbox" checked={on} onChange={({ target }) => onChange(target.checked)} />
      {children}
    </label>
  );
} // prettier-ignore

interface CanvasProps {
  readonly size: { readonly width: number; readonly height: number };
  readonly seen: Seen;
  readonly fit: Seen;
  readonly cut: boolean;
  readonly proved: Proved;
}

/** More pixels of the screen to one of the page tell nothing more, and take long. */
const MOST_RATIO = 2;

function lookOf({ x, y, scale }: Seen, { width, height }: CanvasProps['size'], ratio: number): Look {
  return {
    leftMm: x - width / 2 / scale,
    topMm: y + height / 2 / scale,
    pitchMm: 1 / (scale * ratio),
    width: Math.max(1, Math.round(width * ratio)),
    height: Math.max(1, Math.round(height * ratio)),
  };
} // prettier-ignore

/** Asks the worker for what is seen, and shows what it has meanwhile. */
function ProofCanvas({ size, seen, fit, cut, proved }: CanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const ratio = Math.min(MOST_RATIO, window.devicePixelRatio || 1);
  const pictures = useRef<{ whole: Looked | null; last: Looked | null }>({ whole: null, last: null });
  const [come, setCome] = useState(0);
  const asking = useRef<{ id: number; waiting: boolean; next: (() => void) | null }>({ id: 0, waiting: false, next: null }); // prettier-ignore
  const widest = useRef(0);

  useEffect(() => {
    const state = asking.current;
    proofDesk.onLooked((looked) => {
      const before = pictures.current;
      // A whole one stays under those close up, so that a hand that pulls finds something there.
      if (looked.look.pitchMm >= widest.current) before.whole = looked;
      before.last = looked;
      setCome((count) => count + 1);
      state.waiting = false;
      state.next?.();
    });
    return () => proofDesk.onLooked(null);
  }, []);

  useEffect(() => {
    if (size.width < 1 || size.height < 1) return;
    const state = asking.current;
    const send = (): void => {
      state.next = null;
      state.waiting = true;
      widest.current = 0.99 / (fit.scale * ratio);
      proofDesk.look(++state.id, lookOf(seen, size, ratio), cut);
    };
    // One at a time: a hand is followed as quickly as the worker can.
    if (state.waiting) state.next = send;
    else send();
  }, [seen, size, ratio, cut, proved, fit.scale]);

  useEffect(() => {
    const element = canvas.current;
    const pen = element?.getContext('2d');
    if (!element || !pen) return;
    const look = lookOf(seen, size, ratio);
    if (element.width !== look.width || element.height !== look.height) {
      [element.width, element.height] = [look.width, look.height];
    }
    pen.clearRect(0, 0, element.width, element.height);
    for (const looked of [pictures.current.whole, pictures.current.last]) {
      if (!looked) continue;
      const by = looked.look.pitchMm / look.pitchMm;
      pen.imageSmoothingEnabled = by < 1;
      pen.drawImage(
        looked.bitmap,
        (looked.look.leftMm - look.leftMm) / look.pitchMm,
        (look.topMm - looked.look.topMm) / look.pitchMm,
        looked.look.width * by,
        looked.look.height * by,
      );
    }
  }, [size, seen, ratio, come]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      style={{ width: size.width, height: size.height }}
      className="pointer-events-none absolute inset-0"
    />
  );
} // prettier-ignore
