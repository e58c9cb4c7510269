import { useMemo, useState } from 'react';
import {
  backFrom,
  isWhole,
  lensFrom,
  rigProblems,
  rigProblemSaid,
  stationUpdate,
  withRig,
  type Station,
  type WholeRig,
} from '@gangway/station';
import type { StoredItem } from '../records/read-kit.js';
import { useSoundKit, useSoundRigs } from '../records/sound-kit.js';
import { KitPicker } from '../rigs/kit-picker.js';
import { UpdateNotice } from '../rigs/update-notice.js';
import { useEditing } from '../store/editing.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { useNotice } from '../ui/notices.js';
import { useStation } from '../fields/fields.js';

type Asking = 'rig' | 'lens' | 'back';

/** The station's rig as a whole: taken from the kit, kept in step with it, and what is wrong with it. */
export default function RigBar() {
  const station = useStation();
  const [asking, setAsking] = useState<Asking | null>(null);
  const kit = useSoundKit();
  const { change } = useEditing();
  const notice = useNotice();
  const update = useMemo(
    () => (kit ? stationUpdate(station, (id) => kit.find((item) => item.id === id)) : null),
    [station, kit],
  );
  const problems = useMemo(() => rigProblems(station), [station]);

  const edit = (label: string, write: (now: Station) => Station): void => {
    const refused = change(label, '/lens', write);
    if (refused !== null) notice([refused]);
  };
  const pick = (item: StoredItem): void => {
    const { document } = item;
    edit(`Take ${document.name}`, (now) =>
      withRig(now, {
        lens: document.kind === 'lens' ? lensFrom({ ...item, document }) : now.lens,
        chain: now.chain,
        back:
          document.kind === 'back'
            ? backFrom({ ...item, document }, now.back.orientation)
            : now.back,
        // Movements stay as they were given, unless the lens brings its own.
        ...(document.kind === 'lens' && document.movement
          ? {}
          : { movement_limits: now.movement_limits }),
      }),
    );
  };

  return (
    <div className="border-b border-rule">
      {update && update.updates.length > 0 && (
        <UpdateNotice
          updates={update.updates}
          what="This station"
          onTake={() => edit('Take the kit’s change', () => update.after)}
        />
      )}
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-5 py-2.5">
        <h2 className="mr-2 text-[15px] font-semibold">Rig</h2>
        <Button onClick={() => setAsking('rig')}>Use a rig</Button>
        <Button onClick={() => setAsking('lens')}>Lens from the kit</Button>
        <Button onClick={() => setAsking('back')}>Back from the kit</Button>
      </div>
      {problems.length > 0 && (
        <ol aria-label="Warnings about the rig" className="max-w-4xl space-y-1 px-5 pb-3">
          {problems.map((problem) => (
            <li key={`${problem.code}-${problem.joint}`}>
              <span
                className={
                  problem.severity === 'stop'
                    ? 'font-semibold text-outside'
                    : 'font-semibold text-costs'
                }
              >
                {problem.severity === 'stop' ? 'Stops it.' : 'Mind.'}
              </span>{' '}
              {rigProblemSaid(problem).message}{' '}
              <span className="text-quiet">{rigProblemSaid(problem).cure}</span>
            </li>
          ))}
        </ol>
      )}
      {(asking === 'lens' || asking === 'back') && (
        <KitPicker
          title={asking === 'lens' ? 'Choose the lens' : 'Choose the back'}
          kinds={[asking]}
          onClose={() => setAsking(null)}
          onPick={pick}
        />
      )}
      {asking === 'rig' && (
        <RigChoice
          onClose={() => setAsking(null)}
          onPick={(rig) => edit(`Use ${rig.name}`, (now) => withRig(now, rig))}
        />
      )}
    </div>
  );
}

function RigChoice({ onPick, onClose }: { onPick: (rig: WholeRig) => void; onClose: () => void }) {
  const { data } = useSoundRigs();
  const whole = (data ?? []).flatMap(({ id, document }) =>
    isWhole(document) ? [{ id, rig: document }] : [],
  );
  return (
    <Dialog
      open
      onClose={onClose}
      title="Use a rig"
      description="The station takes a copy of it. Movements, focus and stop stay where the rig allows them."
    >
      {data && whole.length === 0 && <p>No rig is complete yet; assemble one under Rigs.</p>}
      <ul className="max-h-[48vh] overflow-y-auto">
        {whole.map(({ id, rig }) => (
          <li key={id} className="border-t border-rule">
            <button
              type="button"
              onClick={() => {
                onClose();
                onPick(rig);
              }}
              className="min-h-11 w-full px-2 py-1.5 text-left hover:bg-ink hover:text-on-strong"
            >
              {rig.name}
            </button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
