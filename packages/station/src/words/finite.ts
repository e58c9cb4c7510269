/** JSON has no infinity: a value without a finite number is null. Minus zero is zero. */
export const finite = (value: number): number | null => (Number.isFinite(value) ? value + 0 : null);
