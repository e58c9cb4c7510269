import { useMemo } from 'react';
import {
  layoutOf,
  manualList,
  marksByFrame,
  orderLines,
  ordersIn,
  ordersOf,
  standList,
} from '@gangway/station';
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
  const units = useAppSelector((state) => state.preferences.units);
  const told = useMemo(() => ordersOf(station, units), [station, units]);
  const steps = ordersIn(told, 'frames');
  const once = told.orders.filter(({ part }) => part !== 'frames');
  const marks = useMemo(() => marksByFrame(station), [station]);
  const layout = useMemo(() => layoutOf(station), [station]);
  return (
    <>
      <Verdict report={report} />
      <Group title="Set once, before the frames">
        <List of={orderLines(once)} />
      </Group>
      <Group title="In this order, each from the same side">
        <ol>
          {steps.map((order, i) => {
            const { id, detail } = order;
            const index = order.frame!;
            const again = steps.length > 1 && i === steps.length - 1;
            return (
              <li key={id} className="border-t border-rule">
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
                        {orderLines([order])}
                      </span>
                      {detail && <span className="block text-[13px] text-quiet">{detail}</span>}
                      {!again && marks[index] && (
                        <span className="block text-[13px] text-quiet">{marks[index]}</span>
                      )}
                    </span>
                  </span>
                </button>
              </li>
            );
          })}
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
