import { allowOver, provesAgain, singleRule } from './setting.ts';
import { z } from 'zod';
import { mailAddress } from './owners.ts';
import { id, line, moment, remark, version, written, zone } from './values.ts';

/** Bench measures and sets; a lead also signs off, publishes spec sheets and manages people; a viewer reads. */
export const personRole = z.enum(['bench', 'lead', 'viewer']);
export type PersonRole = z.infer<typeof personRole>;

/** Characters that a passphrase has at least. */
export const LEAST_PASSPHRASE = 10;

/** As long as a passphrase may be. */
export const PASSPHRASE_MOST = 200;

const passphrase = written
  .min(LEAST_PASSPHRASE, { error: `a passphrase has at least ${LEAST_PASSPHRASE} characters` })
  .max(PASSPHRASE_MOST, { error: `a passphrase has at most ${PASSPHRASE_MOST} characters` });

export const person = z.object({
  id,
  name: line(60),
  role: personRole,
  active: z.boolean(),
  /** where reminders of rechecks go, of a lead; empty where they do not */
  email: z.string(),
  version,
});
export type Person = z.infer<typeof person>;

export const newPerson = z.object({ name: line(60), role: personRole, passphrase });
export type NewPerson = z.infer<typeof newPerson>;

/** What is left out stays; where a version is said, nobody else may have changed the person since they were read. */
export const personChange = z.object({
  version: version.optional(),
  name: line(60).optional(),
  role: personRole.optional(),
  active: z.boolean().optional(),
  passphrase: passphrase.optional(),
  email: mailAddress.optional(),
});
export type PersonChange = z.infer<typeof personChange>;

/** What a person gives to have another passphrase of their own. */
export const ownPassphrase = z.object({ currentPassphrase: written.min(1).max(200), passphrase });
export type OwnPassphrase = z.infer<typeof ownPassphrase>;

export const signIn = z.object({ name: line(60), passphrase: written.min(1).max(PASSPHRASE_MOST) });
export type SignIn = z.infer<typeof signIn>;

const clockTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, { error: 'a time of day, such as 19:00' });

const shopFields = {
  name: line(80),
  unit: z.enum(['mm', 'thou']),
  /** every day shown or counted is a day there */
  zone,
  /** gauges may be reached on the shop's own network, besides those on the server's machine */
  gaugesOnNetwork: z.boolean(),
  provesAgain,
  /** a screw's reading after locking stands where two turns follow without resistance; for builds opened from then on */
  lockedStands: z.boolean(),
  /** after so many hours a stopped engine is cold, where its sheet does not say; for builds opened from then on */
  coldHours: z.int().min(1).max(72),
  /** taken over the greatest clearance, never under the least */
  allowOver,
  /** round a figure that a source prints alone, for builds opened from then on */
  singleRule,
  /** nobody is told anything between these hours of the shop's clock; alike, there are none */
  quietFrom: clockTime,
  quietTo: clockTime,
  /** days before it is expected that a recheck is told of */
  remindDays: z.int().min(0).max(120),
  /** where the program is reached by others, which labels lead to; empty where nobody gave it */
  address: remark(120).refine(
    (text) =>
      text === '' || /^https?:\/\/[\w.-]+(:\d{1,5})?$|^https?:\/\/\[[0-9a-f:]+\](:\d{1,5})?$/i.test(text),
    {
      error: 'an address such as https://192.0.2.7:5181, with nothing after it',
    },
  ),
  /** where a meter feed answers, on the server's machine or the shop's own network: `127.0.0.1:4529`; empty where there is none */
  meterFeed: remark(80),
  version,
};

/** The shop the program stands in. */
export const shop = z.object(shopFields);
export type Shop = z.infer<typeof shop>;

/**
 * What of the shop is changed: what is left out stays as it is by then, and of `allowOver` so do the roles that are not in it. Where a
 * version is said, nobody else may have changed anything since it was read.
 */
export const shopChange = z.object(shopFields).partial();
export type ShopChange = z.infer<typeof shopChange>;

/** The address that others may reach the program by, as far as it knows; empty where it is not shared. */
export const proposedAddress = z.object({ address: z.string() });
export type ProposedAddress = z.infer<typeof proposedAddress>;

export const session = z.object({
  person,
  shop,
  /** nobody else can check what this lead writes */
  soleLead: z.boolean(),
});
export type Session = z.infer<typeof session>;

/** What was changed of a person, and by whom: it stays on the record. */
export const personChanged = z.object({
  id,
  person: z.string(),
  by: z.string(),
  at: moment,
  /** in words, such as `role: bench → lead` */
  what: z.array(z.string()),
});
export type PersonChanged = z.infer<typeof personChanged>;
