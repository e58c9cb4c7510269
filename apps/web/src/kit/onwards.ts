import type { KeyboardEvent } from 'react';

/** Enter goes on to the next field: a piece that is half filled in is not saved by it. */
export function onwards(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== 'Enter') return;
  event.preventDefault();
  const input = event.currentTarget;
  const fields = [...(input.form?.elements ?? [])].filter(
    (each): each is HTMLElement => each instanceof HTMLElement && each.tagName !== 'BUTTON',
  );
  const next = fields[fields.indexOf(input) + 1];
  if (next) next.focus();
  else input.blur();
}
