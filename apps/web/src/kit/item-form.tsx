import { useEffect, useMemo, useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import {
  fieldsOf,
  itemFrom,
  KIND_WORDS,
  KIT_FIELDS,
  textsOf,
  type Kind,
  type KitItem,
  type Texts,
} from '@gangway/station';
import { Part } from '../ui/boundary.js';
import { Button } from '../ui/button.js';
import { CircleDrawing } from '../drawing/circle-drawing.js';
import { CircleRows } from './circle-rows.js';
import type { Found } from '../records/drafts.js';
import { tab } from '../store/store.js';
import { useStorageTrouble } from '../browser/use-storage.js';
import { itemDrafts, type ItemDraft } from '../records/item-drafts.js';
import { LeftUnreadable } from '../records/left-unreadable.js';
import { LeftDraft } from './left-draft.js';
import { Group, TextLine } from './item-fields.js';
import { nameOf, type Values } from './item-values.js';
import { FormatChoice, MountChoice } from './offers.js';

export type Submitted =
  { kind: 'saved'; revision: number; next: () => void } | { kind: 'failed'; message: string };

interface Props {
  kind: Kind;
  base: KitItem | null;
  baseRevision: number;
  draftKey: string;
  /** Names other items of this kind have, in small letters. */
  names: ReadonlySet<string>;
  /** It was saved elsewhere since; with nothing typed the form follows. */
  newer?: boolean;
  onFollow?: () => void;
  onSave: (document: KitItem, baseRevision: number) => Promise<Submitted>;
}

const START: Partial<Record<Kind, Texts>> = { lens: { f_max: 'f/22' } };

interface KeptDrafts {
  /** This tab's own. */
  draft: ItemDraft | null;
  /** Without one, that of another tab, which may be closed or still open. */
  left: Found<ItemDraft> | null;
}

/** Null until it is known what this browser keeps. */
function useKeptDrafts(draftKey: string): KeptDrafts | null {
  const [kept, setKept] = useState<KeptDrafts | null>(null);
  useEffect(() => {
    let gone = false;
    void itemDrafts.all(draftKey).then(({ drafts }) => {
      const draft = drafts.find((each) => each.tab === tab)?.draft ?? null;
      if (!gone) setKept({ draft, left: draft ? null : (drafts[0] ?? null) });
    });
    return () => {
      gone = true;
    };
  }, [draftKey]);
  return kept;
}

const statusOf = (dirty: boolean, unkept: boolean, base: KitItem | null): string => {
  if (dirty) return unkept ? NOT_KEPT : KEPT;
  return base ? 'Saved.' : '';
};

const KEPT = 'Not saved yet; kept in this browser.';
const NOT_KEPT = 'Not saved yet, and this browser cannot keep it: save before you leave.';

const toValues = (kind: Kind, texts: Texts): Values =>
  Object.fromEntries(fieldsOf(kind).map(({ path }) => [nameOf(path), texts[path] ?? '']));

const toTexts = (kind: Kind, values: Partial<Values>): Texts =>
  Object.fromEntries(fieldsOf(kind).map(({ path }) => [path, values[nameOf(path)] ?? '']));

/** The form of an item, with what was typed into it and not saved. */
export function ItemForm(props: Props) {
  const kept = useKeptDrafts(props.draftKey);
  return (
    kept && (
      <>
        <LeftUnreadable drafts={itemDrafts} id={props.draftKey} what="item" />
        <KeptForm {...props} {...kept} />
      </>
    )
  );
}

function KeptForm({
  kind,
  base,
  baseRevision,
  draftKey,
  names,
  newer = false,
  onFollow,
  onSave,
  draft,
  left,
}: Props & KeptDrafts) {
  const saved = useMemo(
    () => toValues(kind, base ? textsOf(base) : (START[kind] ?? {})),
    [kind, base],
  );
  const { control, register, handleSubmit, setError, clearErrors, setValue, formState } =
    useForm<Values>({
      defaultValues: draft ? toValues(kind, draft.texts) : saved,
    });
  const values = useWatch({ control }) as Partial<Values>;
  const [said, setSaid] = useState<string | null>(null);
  const [from, setFrom] = useState(draft?.baseRevision ?? baseRevision);
  const unkept = useStorageTrouble() !== null;

  const dirty = Object.keys(saved).some((name) => (values[name] ?? '') !== saved[name]);
  useEffect(() => {
    if (!dirty) {
      void itemDrafts.drop(draftKey, tab);
      return;
    }
    itemDrafts.keep(draftKey, tab, {
      texts: toTexts(kind, values),
      baseRevision: from,
      keptAt: Date.now(),
    });
  }, [draftKey, dirty, kind, values, from]);

  useEffect(() => {
    if (newer && !dirty) onFollow?.();
  }, [newer, dirty, onFollow]);

  const check = (path: string): void => {
    const { messages } = itemFrom(kind, toTexts(kind, values), base);
    const message = messages[path];
    const empty = (values[nameOf(path)] ?? '').trim() === '';
    // What was never filled in is asked for on saving, not on passing by.
    if (message && !empty) setError(nameOf(path), { message });
    else clearErrors(nameOf(path));
  };

  const submit = handleSubmit(async () => {
    const { item, messages } = itemFrom(kind, toTexts(kind, values), base);
    if (!item.ok) {
      for (const [path, message] of Object.entries(messages)) setError(nameOf(path), { message });
      setSaid(
        `Not saved: ${Object.keys(messages).length === 1 ? 'one field needs' : `${Object.keys(messages).length} fields need`} another look.`,
      );
      return;
    }
    setSaid('Saving …');
    const answer = await onSave(item.value, from);
    if (answer.kind === 'failed') {
      setSaid(answer.message);
      return;
    }
    await itemDrafts.drop(draftKey, tab);
    setSaid(null);
    answer.next();
  });

  const takeUp = ({ texts, baseRevision: begun }: ItemDraft): void => {
    for (const [name, text] of Object.entries(toValues(kind, texts))) {
      setValue(name, text, { shouldDirty: true });
    }
    setFrom(begun);
  };

  const set = (path: string, text: string): void => {
    setValue(nameOf(path), text, { shouldDirty: true });
    clearErrors(nameOf(path));
  };
  const errorOf = (path: string): string | undefined => formState.errors[nameOf(path)]?.message;
  const sameName = names.has((values.name ?? '').trim().toLowerCase());

  return (
    <form
      noValidate
      onSubmit={(event) => void submit(event)}
      className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-6 pb-24 lg:grid-cols-[minmax(0,1fr)_20rem]"
    >
      <div className="space-y-6">
        {newer && dirty && (
          <p role="status" className="border-l-4 border-costs px-3 py-1">
            Somebody saved this item meanwhile. Saving yours will ask which to go on with.
          </p>
        )}
        {!dirty && <LeftDraft draftKey={draftKey} found={left} onTakeUp={takeUp} />}
        {KIT_FIELDS[kind].map((group) => (
          <Group
            key={group.title}
            group={group}
            kind={kind}
            filled={group.fields.some(({ path }) => (values[nameOf(path)] ?? '') !== '')}
            wrong={group.fields.some(({ path }) => errorOf(path) !== undefined)}
          >
            {kind === 'back' && group.open && (
              <FormatChoice
                width={values.width_mm ?? ''}
                height={values.height_mm ?? ''}
                onChoose={(width, height) => {
                  set('width_mm', width);
                  set('height_mm', height);
                }}
              />
            )}
            {group.fields.some(({ path }) => path === 'mount') && (
              <MountChoice
                onChoose={(mount) => {
                  set('mount', mount.name);
                  set('register_mm', String(mount.register_mm));
                  if (kind === 'back') set('throat_mm', String(mount.throat_mm));
                }}
              />
            )}
            {group.fields.map((field) =>
              field.input === 'circle' ? (
                <CircleRows
                  key={field.path}
                  text={values.circle ?? ''}
                  fMin={values.f_min ?? ''}
                  message={errorOf(field.path)}
                  onChange={(text) => set('circle', text)}
                />
              ) : (
                <TextLine
                  key={field.path}
                  field={field}
                  register={register}
                  control={control}
                  message={errorOf(field.path)}
                  onLeave={() => check(field.path)}
                  // A message that vanished as the field is left would move the button being pressed.
                  onType={() => clearErrors(nameOf(field.path))}
                  hint={
                    field.path === 'name' && sameName
                      ? `There is another ${KIND_WORDS[kind].one} of this name; tell them apart if you can.`
                      : undefined
                  }
                />
              ),
            )}
          </Group>
        ))}
      </div>
      <aside className="lg:sticky lg:top-6 lg:self-start">
        {kind === 'lens' && (
          <Part name="The drawing" of={values.circle}>
            <CircleDrawing text={values.circle ?? ''} sharp={values.sharp_fraction ?? ''} />
          </Part>
        )}
      </aside>
      <div className="fixed inset-x-0 bottom-0 z-10 border-t border-rule bg-page">
        <div className="mx-auto flex max-w-5xl items-center gap-4 px-5 py-2.5">
          <p role="status" className="min-w-0 flex-1 text-[13px] text-quiet">
            {said ?? statusOf(dirty, unkept, base)}
          </p>
          {dirty && base && (
            <Button
              look="quiet"
              onClick={() => {
                for (const [name, text] of Object.entries(saved)) setValue(name, text);
                clearErrors();
                setSaid(null);
              }}
            >
              Take back changes
            </Button>
          )}
          <Button
            look="strong"
            type="submit"
            disabled={formState.isSubmitting || (!dirty && base !== null)}
          >
            {base ? 'Save' : `Add to the kit`}
          </Button>
        </div>
      </div>
    </form>
  );
}
