import { useState } from 'react';
import {
  isWhole,
  ownRig,
  type OwnLensField,
  type OwnLensTexts,
  type OwnRig,
  type WholeRig,
} from '@gangway/station';
import { sentence } from '../records/api.js';
import { useSoundRigs } from '../records/sound-kit.js';
import { OWN } from './own.js';

/** The gear a station begins with: given, chosen from the rigs, or told by its figures. */
export function useGear(rig: WholeRig | undefined, ownOnly: boolean, texts: OwnLensTexts) {
  const { data, error } = useSoundRigs();
  const [messages, setMessages] = useState<Partial<Record<OwnLensField, string>>>({});
  const [chosen, setChosen] = useState<string | null>(null);
  const [unchosen, setUnchosen] = useState(false);
  const rigs = (data ?? []).flatMap(({ id, document }) =>
    isWhole(document) ? [{ id, rig: document }] : [],
  );
  const none = data !== undefined && rigs.length === 0;
  const asks = !rig && !ownOnly;
  const own = !rig && (ownOnly || chosen === OWN || none);

  /** The gear; null, and said at its place, where something is missing. */
  const take = (): WholeRig | OwnRig | null => {
    if (!own) {
      const taken = rig ?? rigs.find(({ id }) => id === chosen)?.rig ?? null;
      setUnchosen(taken === null);
      return taken;
    }
    const read = ownRig(texts);
    setMessages(read.ok ? {} : read.messages);
    return read.ok ? read.value : null;
  };

  return {
    known: data !== undefined,
    // Nothing is offered before all of it is there: a list that grows under a finger is misread.
    waiting: asks && !data ? (error ? sentence(error) : 'Loading …') : null,
    rigs: asks && data && !none ? rigs : null,
    own,
    messages,
    chosen,
    unchosen,
    choose: setChosen,
    take,
  };
}
