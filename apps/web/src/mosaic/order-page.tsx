import { useMemo } from 'react';
import { layoutOf, manualList, marksByFrame, shootingOrder, standList } from '@gangway/station';
import { Group } from '../station/results.js';
import { selectLaid } from '../store/mosaic.js';
import { useAppSelector } from '../store/store.js';
import { usePaced } from '../ui/use-paced.js';
import { Verdict } from './figures.js';
import { Nothing } from './nothing.js';
import { MosaicPage, type LaidStepping } from './page.js';

/** Frames in the order they are taken, each as it is set on the gear in hand. */
export const OrderPage = () =>
  useAppSelector(selectLaid) === null ? (
    <Nothing title="Nothing to take in order yet" />
  ) : (
    <MosaicPage label="In order" empty={null}>
      {(shown) => shown && <Ordered {...shown} />}
    </MosaicPage>
  );

function Ordered({ laid: now, stepping }: LaidStepping) {
  const { station, report } = usePaced(now, 120);
  const steps = useMemo(() => shootingOrder(station), [station]);
  const marks = useMemo(() => marksByFrame(station), [station]);
  const layout = useMemo(() => layoutOf(station), [station]);
  return (
    <>
      <Verdict report={report} />
      <Group title="In this order, each from the same side">
        <ol>
          {steps.map(({ index, says, runUp, again }, i) => (
            <li key={i} className="border-t border-rule">
              <button
                type="button"
                aria-pressed={stepping.at === index && !again}
                onClick={() => stepping.show(stepping.at === index ? null : index)}
                className="w-full px-1 py-1.5 text-left hover:bg-page aria-pressed:bg-page"
              >
                <span className="flex gap-3">
                  <span className={`figure ${again ? 'text-quiet' : ''}`}>{index + 1}</span>
                  <span className="min-w-0">
                    <span className={`block ${again ? 'text-quiet' : 'font-medium'}`}>
                      {again ? 'Again, to see that nothing moved. ' : ''}
                      {says.join(' ')}
                    </span>
                    {runUp && <span className="block text-[13px] text-quiet">{runUp}</span>}
                    {!again && marks[index] && (
                      <span className="block text-[13px] text-quiet">{marks[index]}</span>
                    )}
                  </span>
                </span>
              </button>
            </li>
          ))}
        </ol>
      </Group>
      <Group title="Before you begin">
        <List of={manualList(station)} />
      </Group>
      <Group title="Lens, body and tripod">
        <List of={standList(station, layout)} />
      </Group>
    </>
  );
}

const List = ({ of }: { of: readonly string[] }) => (
  <ul className="list-disc space-y-1 pl-4">
    {of.map((line) => (
      <li key={line}>{line}</li>
    ))}
  </ul>
);
