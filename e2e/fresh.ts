import { readFileSync } from 'node:fs';

/** What every test begins with, whichever runner it has. */

export const demo = (name: string): Record<string, unknown> =>
  JSON.parse(
    readFileSync(new URL(`../apps/server/demo/${name}.json`, import.meta.url), 'utf8'),
  ) as Record<string, unknown>;

async function posted(url: string, body: unknown): Promise<{ id: string }> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (response.status !== 201) throw new Error(`${url} answered ${response.status}`);
  return (await response.json()) as { id: string };
}

/** A job of the test's own with one station in it. @returns the addresses of both */
export async function freshAt(
  address: string,
  document: unknown = demo('1-customs-house-front'),
): Promise<{ job: string; station: string; cover: string; api: string }> {
  const name = `Test ${crypto.randomUUID().slice(0, 8)}`;
  const job = await posted(`${address}/api/jobs`, { name });
  const station = await posted(`${address}/api/jobs/${job.id}/stations`, { document });
  const base = `${address}/jobs/${job.id}/stations/${station.id}`;
  return {
    job: `${address}/jobs/${job.id}`,
    station: base,
    cover: `${base}/cover`,
    api: `${address}/api/stations/${station.id}`,
  };
}
