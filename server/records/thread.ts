import { Refusal } from '../plugins/errors.ts';
import { lookAtPictures, lookThrough, type LookedThrough } from './unpack.ts';

/** What comes of looking through a file: the record, or why it is none. */
export type Looked = { readonly record: LookedThrough } | { readonly refused: { readonly detail: string } };

/** What the thread for records does with one file: `RecordReader` calls it. */
export default async function look(zip: Uint8Array): Promise<Looked> {
  try {
    const record = lookThrough(zip);
    await lookAtPictures(zip, record.rows);
    return { record };
  } catch (error) {
    // an error goes from thread to thread as its words alone
    if (error instanceof Refusal && error.code === 'bad_record')
      return { refused: { detail: error.message } };
    throw error;
  }
}
