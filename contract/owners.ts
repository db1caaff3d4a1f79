import { z } from 'zod';
import { id, line, remark, version } from './values.ts';

/** An address for mail, or nothing where none is known. */
export const mailAddress = z
  .string()
  .trim()
  .max(120)
  .refine((text) => text === '' || z.email().safeParse(text).success, { error: 'is no mail address' });

const fields = {
  name: line(80),
  email: mailAddress,
  /** by mail, or not at all */
  tells: z.enum(['mail', 'peace']),
  note: remark(200),
};

export const owner = z.object({
  id,
  ...fields,
  /** empty where none is known; null where there is one, which viewers do not see */
  email: mailAddress.nullable(),
  engines: z.int(),
  version,
});
export type Owner = z.infer<typeof owner>;
/** An address that is left out stays as it is: whoever does not see it changes nothing of it. */
export const ownerChange = z.object({ ...fields, email: mailAddress.optional(), version });
export type OwnerChange = z.input<typeof ownerChange>;
