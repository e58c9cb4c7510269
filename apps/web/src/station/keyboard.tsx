import {
  createContext,
  lazy,
  Suspense,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useState,
  type ReactNode,
} from 'react';
import { useNavigate } from 'react-router';
import { CONTROL_IDS, CONTROLS, lastAllowed, type ControlId } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { groundGlassFlipped } from '../store/preferences.js';
import { selectScales, selectStation } from '../store/selectors.js';
import { redone, undone } from '../store/station.js';
import { useAppDispatch, useAppStore } from '../store/store.js';
import { useKeyRun } from '../drawing/key-run.js';
import { stepOf } from '../places.js';

const KeySheet = lazy(() => import('./key-sheet.js'));
const Palette = lazy(() => import('./palette.js'));

interface Keyboard {
  active: ControlId;
  setActive: (id: ControlId) => void;
  showKeys: () => void;
  /** Moves a scale as its keys do; true when the key was one of them. */
  scaleKey: (id: ControlId, event: ScaleKey) => boolean;
}

export interface ScaleKey {
  key: string;
  shiftKey: boolean;
  altKey: boolean;
  /** Held, and told again. */
  repeat: boolean;
}

const Context = createContext<Keyboard | null>(null);

export function useKeyboard(): Keyboard {
  const keyboard = useContext(Context);
  if (!keyboard) throw new Error('no keyboard around');
  return keyboard;
}

const DIRECTION: Record<string, 1 | -1> = {
  ArrowUp: 1,
  ArrowRight: 1,
  ArrowDown: -1,
  ArrowLeft: -1,
};

const BY_KEY = new Map(CONTROL_IDS.map((id) => [CONTROLS[id].key.toLowerCase(), id]));

const writes = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

const inDialog = (): boolean => document.querySelector('[role="dialog"]') !== null;

export function KeyboardProvider({ children }: { children: ReactNode }) {
  const [active, setActive] = useState<ControlId>('rise');
  const [sheet, setSheet] = useState(false);
  const [palette, setPalette] = useState(false);
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { setControl } = useEditing();
  const keyRun = useKeyRun();

  const scaleKey = useCallback(
    (id: ControlId, { key, shiftKey, altKey, repeat }: ScaleKey): boolean => {
      const control = CONTROLS[id];
      const state = store.getState();
      const station = selectStation(state);
      const direction = DIRECTION[key];
      if (direction) {
        const next = control.step(station, direction, shiftKey ? 10 : altKey ? 0.1 : 1);
        const [least, most] = control.mechanism(station);
        setControl(id, Math.min(most, Math.max(least, next)), keyRun(id, repeat));
        return true;
      }
      if (key === '0' || key === 'Home') {
        setControl(id, control.zero(station));
        return true;
      }
      if (key.toLowerCase() === 'm' || key === 'End') {
        const last = lastAllowed(selectScales(state)[id]);
        if (last !== null) setControl(id, last);
        return true;
      }
      return false;
    },
    [store, setControl, keyRun],
  );

  const pick = useCallback((id: ControlId): void => {
    setActive(id);
    document.getElementById(`scale-${id}`)?.focus();
  }, []);

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      const step = stepOf(key);
      if (command && key === 'k') {
        setPalette((now) => !now);
      } else if (inDialog() || event.defaultPrevented || writes(event.target)) {
        return;
      } else if (command && key === 'z') {
        dispatch(event.shiftKey ? redone() : undone());
      } else if (command && key === 'y') {
        dispatch(redone());
      } else if (command) {
        return;
      } else if (event.key === '?') {
        setSheet(true);
      } else if (key === 'f') {
        dispatch(groundGlassFlipped());
      } else if (step) {
        void navigate(step.path);
      } else if (BY_KEY.has(key)) {
        pick(BY_KEY.get(key)!);
      } else if (!scaleKey(active, event)) {
        return;
      }
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [active, dispatch, navigate, pick, scaleKey]);

  const value = useMemo(
    () => ({ active, setActive, showKeys: () => setSheet(true), scaleKey }),
    [active, scaleKey],
  );
  return (
    <Context value={value}>
      {children}
      <Suspense>
        {sheet && <KeySheet onClose={() => setSheet(false)} />}
        {palette && (
          <Palette onClose={() => setPalette(false)} onPick={pick} onKeys={() => setSheet(true)} />
        )}
      </Suspense>
    </Context>
  );
}
