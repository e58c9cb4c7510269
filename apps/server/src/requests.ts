import * as z from 'zod';
import { isWellFormed } from '@gangway/station';

/** What requests are made of. */

export const idSchema = z.uuid({ error: 'must be a UUID' });

export const nameSchema = z
  .string({ error: 'must be text' })
  .trim()
  .min(1, { error: 'give a name of at least one letter' })
  .max(200, { error: 'must be at most 200 characters long' })
  .refine((name) => !/[\u0000-\u001f\u007f]/.test(name), {
    error: 'must not hold control characters',
  })
  .refine(isWellFormed, { error: 'holds half of a character; type it again' });

/** A whole number in an address. */
export const whole = (least: number, most: number, usual: number) => {
  const error = `must be a whole number from ${least} to ${most}`;
  return z.coerce
    .number({ error })
    .int({ error })
    .min(least, { error })
    .max(most, { error })
    .default(usual);
};
