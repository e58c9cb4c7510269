import { startStack } from './stack.js';

/** One stack for all tests that leave it as it is; those that break things start their own. */
export default async function setUp(): Promise<() => Promise<void>> {
  const stack = await startStack('test', 4270);
  process.env.GANGWAY_ADDRESS = stack.address;
  process.env.GANGWAY_DATABASE_URL = stack.databaseUrl;
  return stack.end;
}
