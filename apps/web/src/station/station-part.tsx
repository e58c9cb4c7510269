import type { ReactNode } from 'react';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Part } from '../ui/boundary.js';

/** A part of a station's page: what failed is tried again once the station is another. */
export const StationPart = ({ name, children }: { name: string; children: ReactNode }) => (
  <Part name={name} of={useAppSelector(selectStation)}>
    {children}
  </Part>
);
