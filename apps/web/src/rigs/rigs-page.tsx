import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  faultSentence,
  isWhole,
  keptName,
  newRig,
  rigStation,
  rigVerdict,
  UNNAMED_RIG,
  type Rig,
} from '@gangway/station';
import {
  useArchiveRigMutation,
  useCreateRigMutation,
  useDeleteRigMutation,
  useDuplicateRigMutation,
  useRigsQuery,
} from '../records/kit-api.js';
import { SEEN_ANEW, sentence } from '../records/api.js';
import { BrokenLine } from '../ui/boundary.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { ListRow } from '../pages/list-row.js';
import { WaitingLine } from '../pages/waiting-line.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { partsOf } from './rig-rows.js';
import { newId } from '../browser/new-id.js';
import type { StoredDocument } from '../records/shapes.js';
import { readRig } from '../records/read-kit.js';
import { documentItems } from '../pages/document-items.js';
import { useArchiving, useListing, useTold, ListPage } from '../pages/list-page.js';

const MOST_COMPARED = 5;

export function RigsPage() {
  const { archived, setArchived, pollingInterval, heed } = useListing();
  const [ticked, setTicked] = useState<readonly string[]>([]);
  const { data, error } = useRigsQuery({ archived }, { pollingInterval, ...SEEN_ANEW });
  heed(error);
  const [create] = useCreateRigMutation();
  const [archive] = useArchiveRigMutation();
  const [duplicate] = useDuplicateRigMutation();
  const [remove] = useDeleteRigMutation();
  const notice = useNotice();
  const navigate = useNavigate();

  const told = useTold();
  const archiving = useArchiving(archive);
  const begin = async (): Promise<void> => {
    const id = newId();
    const made = await create({ id, document: newRig(UNNAMED_RIG) });
    if (made.error) notice([sentence(made.error)]);
    else await navigate(`/rigs/${id}`);
  };
  const there = ticked.filter((id) => data?.some((each) => each.id === id));

  return (
    <ListPage
      title={archived ? 'Archived rigs' : 'Rigs'}
      things="rigs"
      archived={archived}
      onArchive={setArchived}
      actions={
        !archived && (
          <>
            <Button
              disabled={there.length < 2}
              onClick={() => void navigate(`/rigs/compare?rigs=${there.join(',')}`)}
            >
              Compare{there.length > 0 ? ` ${there.length}` : ''}
            </Button>
            <Button look="strong" onClick={() => void begin()}>
              Assemble a rig
            </Button>
          </>
        )
      }
      error={error}
      loading={!data}
      empty={
        data?.length !== 0
          ? null
          : archived
            ? 'Nothing is archived.'
            : 'No rigs yet. Assemble one from the lens and the back in your kit.'
      }
    >
      <ul className="border-t border-rule">
        {data?.map((stored) => (
          <ListRow
            key={stored.id}
            name={keptName(stored.document)}
            of={stored.document}
            before={
              !archived && (
                <label className="flex size-11 shrink-0 items-center justify-center">
                  <input
                    type="checkbox"
                    aria-label={`Compare ${keptName(stored.document)}`}
                    checked={ticked.includes(stored.id)}
                    disabled={
                      !canCompare(stored.document) ||
                      (!ticked.includes(stored.id) && there.length >= MOST_COMPARED)
                    }
                    onChange={(event) =>
                      setTicked(
                        event.target.checked
                          ? [...ticked, stored.id]
                          : ticked.filter((id) => id !== stored.id),
                      )
                    }
                    className="size-4 accent-(--ink)"
                  />
                </label>
              )
            }
            itemsOf={() =>
              documentItems(stored, {
                duplicate,
                archiving,
                remove,
                told,
                really: 'Really delete it; stations keep their copies',
              })
            }
          >
            <RigLine stored={stored} />
            <WaitingLine kind="rig" id={stored.id} />
          </ListRow>
        ))}
      </ul>
    </ListPage>
  );
}

function RigVerdict({ rig }: { rig: Rig }) {
  const verdict = useMemo(() => (isWhole(rig) ? rigVerdict(rigStation(rig)) : null), [rig]);
  return (
    <span className="w-60 sm:text-right">
      <span
        className={`figure text-[18px] ${verdict ? STANDING_TEXT[verdict.standing] : 'text-quiet'}`}
      >
        {verdict?.figure ?? '—'}
      </span>{' '}
      <span className="text-[12px] text-quiet">{verdict?.words ?? 'not complete'}</span>
    </span>
  );
}

/** Whether what is stored, which may be anything, is a rig to set beside another. */
const canCompare = (document: unknown): boolean => {
  const { value } = readRig(document);
  return value !== null && isWhole(value);
};

function RigLine({ stored }: { stored: StoredDocument }) {
  const { value: rig, faults } = readRig(stored.document);
  const to = `/rigs/${stored.id}`;
  if (!rig) {
    const why = faults[0] ? faultSentence(faults[0]) : 'It holds nothing that can be read.';
    return (
      <Link to={to} className="flex min-w-0 flex-1">
        <BrokenLine name={keptName(stored.document)} why={why} />
      </Link>
    );
  }
  return (
    <Link to={to} className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-6 px-2 py-2.5">
      <span className="min-w-0 flex-1 basis-64">
        <span className="block truncate text-[16px] font-medium">{rig.name}</span>
        <span className="block truncate text-[13px] text-quiet">{partsOf(rig)}</span>
      </span>
      <RigVerdict rig={rig} />
    </Link>
  );
}
