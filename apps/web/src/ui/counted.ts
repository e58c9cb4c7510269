/** `1 line`, `2 lines`; what adds no s gives its own plural. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;
