/** What stands in the fields of the form. */
export type Values = Record<string, string>;

/** Form names may not hold dots, which would make nests of them. */
export const nameOf = (path: string): string => path.replaceAll('.', '/');
