import { useMemo, useState } from 'react';
import {
  fixed,
  isWhole,
  withWords,
  withZero,
  ZERO_PROBLEMS,
  zeroOf,
  type Rig,
} from '@gangway/station';
import { sentence } from '../records/api.js';
import { useRigsQuery, useSaveRigMutation } from '../records/kit-api.js';
import { readRig } from '../records/read-kit.js';
import { Button } from '../ui/button.js';
import { Choosing } from '../ui/choosing.js';
import { useNotice } from '../ui/notices.js';
import { deskOf } from './desk.js';
import { FileFields } from './file-fields.js';
import { wrongWith, type Column } from './typed.js';
import type { PartProps } from './part-props.js';
import { Problems } from './problems.js';

const LEAN: Column = {
  field: 'deg',
  label: 'Scale reads, °',
  allowed: 'an angle, as −0.5 or 1',
  sound: (value) => Math.abs(value) <= 20,
  needed: true,
};

type Axis = 'tilt' | 'swing';

const WAYS = {
  tilt: ['forward', 'back', 'plus is forward'],
  swing: ['right', 'left', 'plus is right'],
} as const;

const readingSaid = (deg: number, axis: Axis): string =>
  `${fixed(Math.abs(deg), 2)}° ${deg >= 0 ? WAYS[axis][0] : WAYS[axis][1]}`;

/** Where the scale stands when the lens is straight. */
export function ZeroPart({ lens, desk, typed }: PartProps) {
  const files = useMemo(() => desk.files ?? [], [desk.files]);
  const [axis, setAxis] = useState<Axis>('tilt');
  const leans = new Set(files.map(({ name }) => typed.of(name, 'deg')));
  const wrong =
    files.map((file) => wrongWith(file, [LEAN], typed)).find((each) => each !== null) ??
    (leans.size < 2 ? 'Give pictures at two leans or more.' : null);
  const found = desk.found.zero;
  const measure = (): void =>
    deskOf(lens.id, 'zero').measure({
      what: 'zero',
      axis,
      shots: files.map(({ index, name }) => ({ index, deg: typed.of(name, 'deg')! })),
    });
  return (
    <div className="flex flex-1 flex-col lg:flex-row">
      <div className="min-w-0 flex-1 space-y-4 bg-stage px-5 py-6">
        {found && found.zeroDeg !== null ? (
          <>
            <p>
              <span className="text-quiet">Straight when the {axis} scale reads</span>
              <span className="figure block text-[34px] leading-10">
                {readingSaid(found.zeroDeg, axis)}
              </span>
              {found.sigmaDeg !== null && (
                <span className="text-quiet">give or take {fixed(2 * found.sigmaDeg, 2)}°</span>
              )}
            </p>
            <Scale deg={found.zeroDeg} tried={[...leans].filter((each) => each !== null)} axis={axis} />
            <KeepWithRig lens={lens.id} axis={axis} deg={found.zeroDeg} />
          </>
        ) : (
          <p className="max-w-[60ch] text-quiet">
            {found
              ? 'These pictures do not tell. See beside why.'
              : 'Tell what the scale read in each picture. Where both sides of the chart are equally sharp is the true zero.'}
          </p>
        )}
      </div>
      <aside aria-label="The leans" className="w-full shrink-0 space-y-4 border-l border-rule bg-paper px-5 py-4 lg:w-[352px]">
        <Choosing
          label="Which lean"
          value={axis}
          options={[['tilt', 'tilt'], ['swing', 'swing']]}
          onChoose={setAxis}
        />
        <p className="text-[13px] text-quiet">Of the scale, {WAYS[axis][2]}.</p>
        <FileFields {...{ files, typed }} columns={[LEAN]} />
        {wrong && <p role="note" className="text-costs">{wrong}</p>}
        <Button look={found ? 'plain' : 'strong'} disabled={wrong !== null || desk.doing !== null} onClick={measure}>
          {found ? 'Measure again' : 'Measure'}
        </Button>
        {found && <Problems of={withWords(found.problems, ZERO_PROBLEMS)} />}
      </aside>
    </div>
  );
} // prettier-ignore

/** The scale with the leans that were tried and where it is straight. */
function Scale({ deg, tried, axis }: { deg: number; tried: readonly number[]; axis: Axis }) {
  const most = Math.max(1, ...tried.map(Math.abs), Math.abs(deg)) * 1.15;
  const x = (value: number): number => 300 + (value / most) * 280;
  const step = most > 4 ? 1 : most > 1.6 ? 0.5 : 0.25;
  const marks = Array.from({ length: 2 * Math.floor(most / step) + 1 }, (_, i) => (i - Math.floor(most / step)) * step);
  return (
    <svg viewBox="0 0 600 86" className="w-full max-w-2xl text-[13px]" role="img" aria-label={`On the ${axis} scale the true zero lies at ${readingSaid(deg, axis)}`}>
      <path d="M20,52H580" className="stroke-ink" strokeWidth={1.5} />
      {marks.map((mark) => (
        <g key={mark}>
          <path d={`M${x(mark)},52v${mark === 0 ? -14 : -8}`} className="stroke-ink" />
          <text x={x(mark)} y={70} textAnchor="middle" className="narrow">
            {fixed(Math.abs(mark), 2).replace(/\.?0+$/, '') || '0'}
          </text>
        </g>
      ))}
      {tried.map((each) => (
        <circle key={each} cx={x(each)} cy={52} r={4} className="fill-paper stroke-quiet" />
      ))}
      <path d={`M${x(deg)},50l-8,-16h16z`} className="fill-within" />
      <text x={x(deg)} y={24} textAnchor="middle" className="figure">straight</text>
    </svg>
  );
} // prettier-ignore

/** Rigs that hold this lens and lean: the zero is that of the gear together. */
function KeepWithRig({ lens, axis, deg }: { lens: string; axis: Axis; deg: number }) {
  const { data } = useRigsQuery({ archived: false });
  const [save] = useSaveRigMutation();
  const notice = useNotice();
  const lean = `${axis}_deg` as const;
  const rigs = useMemo(
    () =>
      (data ?? []).flatMap((stored) => {
        const { value } = readRig(stored.document);
        const mine = value && isWhole(value) && value.lens.origin?.kit_id === lens;
        return mine && withZero(value, lean, deg) ? [{ stored, rig: value as Rig }] : [];
      }),
    [data, lens, lean, deg],
  );
  const keep = async ({ stored, rig }: (typeof rigs)[number]): Promise<void> => {
    const made = await save({ id: stored.id, baseRevision: stored.revision, document: withZero(rig, lean, deg)! });
    if (made.error) return notice([sentence(made.error)]);
    const { revision } = made.data;
    return notice([`${rig.name} now knows its zero. Its card says what to set on the scale.`], {
      label: 'Undo',
      onSelect: () =>
        void save({ id: stored.id, baseRevision: revision, document: rig }).then(({ error }) => {
          if (error) notice([sentence(error)]);
        }),
    });
  };
  if (rigs.length === 0) {
    return <p className="text-quiet">No rig with this lens leans that way. Put one together, and keep it there.</p>;
  }
  return (
    <section aria-label="Rigs with this lens">
      <h2 className="text-[13px] font-semibold text-quiet">Keep it with the rig it was found on</h2>
      <ul>
        {rigs.map((each) => {
          const now = zeroOf(each.rig, lean);
          return (
            <li key={each.stored.id} className="flex flex-wrap items-center gap-x-4 border-t border-rule py-1.5">
              <span className="min-w-0 flex-1 break-words">
                {each.rig.name}
                {now !== null && <span className="text-quiet"> kept: {readingSaid(now, axis)}</span>}
              </span>
              <Button aria-label={`Keep with ${each.rig.name}`} onClick={() => void keep(each)}>
                Keep with it
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
} // prettier-ignore
