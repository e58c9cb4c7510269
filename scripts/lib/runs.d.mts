export const atLength: boolean;
export function runs(all: number): number;
