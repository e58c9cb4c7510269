export const atLength: boolean;
export function runs(all: number): number;
export function seen(all: number): number;
