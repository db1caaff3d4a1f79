import { tenthsFromMm } from '@zero-lash/core/length';
import { z } from 'zod';
import { thicknessMm } from './bounded.ts';
import { id, line, remark } from './values.ts';

/** Pieces of one thickness, and how many of them lie in the drawer. */
const sized = z.object({ thickness: thicknessMm, count: z.int().min(0).max(999) });

const money = z
  .number({ error: 'a price such as 8 or 7.50' })
  .min(0, { error: 'a price is not below nothing' })
  .max(100_000, { error: 'no piece costs that much' });
/** What one size costs, where that is not what the others do. */
const sizePrice = z.object({ thickness: thicknessMm, price: money });

/** The pieces of one system that a shop owns or has owned, thinnest first; lengths in mm. */
export const drawerSystem = z.object({
  /** what pieces that fit in one another's place are kept by */
  system: z.string(),
  title: z.string(),
  /** the unit they are stamped in, in which they are called whatever a page reads in */
  stamped: z.enum(['mm', 'thou']),
  /** what they are made in, as the sheets say; empty where no sheet wants them any more */
  made: z.array(thicknessMm),
  sizes: z.array(sized),
  /** of one piece, in the shop's money */
  price: z.number(),
  /** sizes that cost something else */
  sizePrices: z.array(sizePrice),
  /** so many of each size are to be there */
  reorder: z.int(),
  /** 0 until anybody said what they cost */
  version: z.int().min(0),
});
export type DrawerSystem = z.infer<typeof drawerSystem>;

export const drawer = z.object({ systems: z.array(drawerSystem) });
export type Drawer = z.infer<typeof drawer>;

/** Why pieces came or went. */
export const moveReason = z.enum([
  'bought',
  'kit',
  'scrapped',
  'counted',
  'fitted',
  'taken-out',
  'found',
  'taken-back',
]);
export type MoveReason = z.infer<typeof moveReason>;

/** Pieces that came in or went out, of one system at one moment. */
export const newMoves = z
  .object({
    system: line(40),
    why: z.enum(['bought', 'kit', 'scrapped']),
    lines: z
      .array(
        z.object({
          thickness: thicknessMm,
          /** above 0 they came in, below 0 they went out */
          count: z.int().min(-999).max(999),
        }),
      )
      .min(1)
      .max(400),
    note: remark(120).default(''),
  })
  .superRefine(({ why, lines }, context) =>
    lines.forEach(({ count }, index) => {
      const message =
        count === 0
          ? 'nothing came and nothing went'
          : why === 'scrapped' && count > 0
            ? 'what is scrapped goes out: there are fewer of it'
            : why === 'kit' && count < 0
              ? 'a kit that comes in brings pieces'
              : null;
      if (message) context.addIssue({ code: 'custom', path: ['lines', index, 'count'], message });
    }),
  );
export type NewMoves = z.input<typeof newMoves>;

/** A stocktaking: what lies there, whatever the ledger says. */
export const newCount = z.object({
  system: line(40),
  lines: z.array(sized).min(1).max(400),
  note: remark(120).default(''),
});
export type NewCount = z.input<typeof newCount>;

export const systemChange = z.object({
  price: money,
  sizePrices: z.array(sizePrice).max(200).default([]),
  reorder: z.int().min(0).max(99),
  version: z.int().min(0),
});
export type SystemChange = z.input<typeof systemChange>;

/** One movement as the ledger keeps it. */
export const drawerMove = z.object({
  id,
  system: z.string(),
  thickness: z.number(),
  count: z.int(),
  why: moveReason,
  /** the point and the build it went to or came from */
  point: z.string().nullable(),
  buildId: id.nullable(),
  engine: z.string().nullable(),
  note: z.string(),
  by: z.string(),
  at: z.string(),
});
export type DrawerMove = z.infer<typeof drawerMove>;

/** Pieces that are ordered, of one system; from a plan, for its build. */
export const newOrder = z.object({
  system: line(40),
  lines: z
    .array(z.object({ thickness: thicknessMm, count: z.int().min(1).max(999) }))
    .min(1)
    .max(400)
    .refine((lines) => new Set(lines.map(({ thickness }) => tenthsFromMm(thickness))).size === lines.length, {
      error: 'each size once, with how many',
    }),
  buildId: id.nullable().default(null),
  note: remark(120).default(''),
});
export type NewOrder = z.input<typeof newOrder>;

/** What came of an order; the rest is waited for, or not any more. */
export const newDelivery = z.object({
  lines: z.array(z.object({ thickness: thicknessMm, count: z.int().min(1).max(999) })).max(400),
  /** the rest will not come */
  closes: z.boolean(),
});
export type NewDelivery = z.input<typeof newDelivery>;

/** An order with what came of it so far. */
export const pieceOrder = z.object({
  id,
  system: z.string(),
  title: z.string(),
  lines: z.array(z.object({ thickness: z.number(), count: z.int(), came: z.int() })),
  note: z.string(),
  buildId: id.nullable(),
  engine: z.string().nullable(),
  by: z.string(),
  at: z.string(),
  /** something of it is still waited for */
  open: z.boolean(),
});
export type PieceOrder = z.infer<typeof pieceOrder>;
