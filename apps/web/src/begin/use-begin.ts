import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import {
  backFrom,
  lensFrom,
  newStation,
  rigOf,
  withJobCriterion,
  withRig,
  type OwnRig,
  type WholeRig,
} from '@gangway/station';
import { newId } from '../browser/new-id.js';
import { answered } from '../records/answered.js';
import {
  sentence,
  useCreateJobMutation,
  useCreateStationMutation,
  useLazyFreeNameQuery,
  useLazyJobQuery,
} from '../records/api.js';
import { useCreateItemMutation, useCreateRigMutation } from '../records/kit-api.js';
import type { StoredItem } from '../records/read-kit.js';

/** What a station begins with. */
export interface Begun {
  /** A rig there is, or gear that is new to the kit. */
  readonly rig: WholeRig | OwnRig;
  readonly job: { readonly id: string } | { readonly newName: string };
  /** Empty: the first free one. */
  readonly name: string;
}

const isRig = (rig: WholeRig | OwnRig): rig is WholeRig => 'chain' in rig;

/** Makes what a station needs, in order; what was made before something failed is not made twice. */
export function useBegin(kit: readonly StoredItem[] | undefined) {
  const [createItem] = useCreateItemMutation();
  const [createRig] = useCreateRigMutation();
  const [createJob] = useCreateJobMutation();
  const [createStation] = useCreateStationMutation();
  const [freeName] = useLazyFreeNameQuery();
  const [askJob] = useLazyJobQuery();
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const ids = useRef(new Map<string, string>());
  const navigate = useNavigate();

  /** The same thing keeps its id, so that the server knows it when it is sent again. */
  const idOf = (thing: unknown): string => {
    const key = JSON.stringify(thing);
    const id = ids.current.get(key) ?? newId();
    ids.current.set(key, id);
    return id;
  };

  const storedItem = async <T extends OwnRig['lens'] | OwnRig['back']>(document: T) => {
    const there = kit?.find(
      ({ document: each }) => each.kind === document.kind && each.name === document.name,
    );
    // A back of this size that is in the kit already is the one that is meant.
    if (there && document.kind === 'back') return { ...there, document: there.document as T };
    const { id, revision } = await createItem({ id: idOf(document), document }).unwrap();
    return { id, revision, document };
  };

  const rigFrom = async (rig: WholeRig | OwnRig): Promise<WholeRig> => {
    if (isRig(rig)) return rig;
    const lens = lensFrom(await storedItem(rig.lens));
    const made = rigOf({ lens, back: backFrom(await storedItem(rig.back)) });
    await createRig({ id: idOf(made), document: made }).unwrap();
    return made;
  };

  const jobFrom = async (job: Begun['job']) => {
    if ('id' in job) return answered(() => askJob(job.id));
    const name = job.newName.trim() || 'First job';
    return createJob({ id: idOf(['job', name]), name }).unwrap();
  };

  /** @returns whether the station is there */
  const begin = async ({ rig: asked, job: wanted, name }: Begun): Promise<boolean> => {
    setBusy(true);
    setFailed(null);
    try {
      const rig = await rigFrom(asked);
      const job = await jobFrom(wanted);
      const called =
        name.trim() || (await answered(() => freeName({ jobId: job.id, stem: 'Station' }))).name;
      const begun = { ...newStation(called), focus: { distance_m: null } };
      const document = withJobCriterion({ ...withRig(begun, rig), back: rig.back }, job.criterion);
      const id = idOf(['station', job.id, document]);
      await createStation({ jobId: job.id, id, document }).unwrap();
      await navigate(`/jobs/${job.id}/stations/${id}/view`);
      return true;
    } catch (error) {
      setFailed(sentence(error));
      return false;
    } finally {
      setBusy(false);
    }
  };

  return { begin, busy, failed };
}
