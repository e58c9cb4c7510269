import { expect } from '@playwright/test';
import { ADDRESS } from './helpers.js';

/** Gear of a test's own, made by the interface programs use. */
export async function post<T = { id: string }>(path: string, body: unknown = {}): Promise<T> {
  const response = await fetch(`${ADDRESS}/api/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  expect(response.status).toBe(201);
  return (await response.json()) as T;
}

export async function get<T>(path: string): Promise<T> {
  return (await (await fetch(`${ADDRESS}/api/${path}`)).json()) as T;
}

export interface Item {
  id: string;
  revision: number;
  archived: boolean;
  document: Record<string, unknown> & { name: string };
}

export const lens = (name: string, more: object = {}) => ({
  kind: 'lens',
  name,
  focal_length_mm: 35,
  f_min: 2.8,
  f_max: 22,
  circle: [{ f_number: 2.8, diameter_mm: 58 }],
  ...more,
});

export const makeItem = (document: object): Promise<Item> => post<Item>('kit', { document });

/** A copy of a demo rig. */
export const copyRig = (n: number): Promise<Item> =>
  post<Item>(`rigs/c0000000-0000-4000-8000-${String(n).padStart(12, '0')}/duplicate`);

export const unique = (name: string): string => `${name} ${crypto.randomUUID().slice(0, 6)}`;
