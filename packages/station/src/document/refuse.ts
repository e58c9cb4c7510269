/** Says what is wrong with a value, and where. */
export type Refuse = (path: (string | number)[], message: string) => void;
