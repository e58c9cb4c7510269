import type { ReactNode } from 'react';
import { Line } from '../ui/boundary.js';
import { RowMenu, type MenuItem } from '../ui/row-menu.js';

interface Props {
  name: string;
  /** What the row is made from; a row that failed is tried anew once that changes. */
  of: unknown;
  itemsOf: () => MenuItem[];
  /** What stands before the name, as a box to tick. */
  before?: ReactNode;
  children: ReactNode;
}

/** A row of a list with its menu; one that cannot be shown leaves the others standing. */
export function ListRow({ name, of, itemsOf, before, children }: Props) {
  return (
    <li className="flex items-center border-b border-rule hover:bg-paper">
      {before}
      <Line name={name} of={of}>
        {children}
      </Line>
      <RowMenu label={`More for ${name}`} itemsOf={itemsOf} />
    </li>
  );
}
