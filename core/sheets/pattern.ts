/** What a lash point serves; each role has limits of its own. */
export type Role = 'intake' | 'exhaust' | 'intake-closing' | 'exhaust-closing' | 'brake';

/** A mark as a person finds it. */
export interface MarkName {
  /** degrees of one turn */
  readonly at: number;
  /** as it is stamped, or what it looks like: `2-5`, `dot`, `line on the wheel against the split` */
  readonly words: string;
  /** where it is looked at from; null where that is not said */
  readonly from: 'front' | 'flywheel' | 'left' | 'right' | null;
  /** what stands beside it and is not it; empty where nothing does */
  readonly decoys: string;
}

/** Figures of an adjuster as they were typed, such as `24 tpi` and `10–11 lbf·ft`. */
export interface AsTyped {
  readonly pitch?: string | undefined;
  readonly torque?: string | undefined;
  readonly runsAt?: string | undefined;
}

/** What keeps an adjuster where it was turned to: a nut on it, its own grip, or a screw inside a pivot's nut. */
export type Locking = 'lock-nut' | 'self-locking' | 'inner-screw';

/** How the cylinders stand. */
export type Layout = 'single' | 'inline' | 'v' | 'flat';

/** A row of cylinders under one head. Bank A is the near one in a head map; bank B lies behind it. */
export type Bank = 'A' | 'B';

/** One cylinder, named as its maker names it. */
export interface Cylinder {
  readonly id: string;
  readonly bank: Bank;
  /** counted from the front of its bank, from 1 */
  readonly place: number;
  /** crank degrees of its firing TDC, 0 to under 720 */
  readonly firesAt: number;
}

/** When the valves move, in crank degrees from the dead centre named. */
export interface ValveTiming {
  readonly ivoBtdc: number;
  readonly ivcAbdc: number;
  readonly evoBbdc: number;
  readonly evcAtdc: number;
  /** mm, the lift these were given at; nothing where the source gives them at the seat, or does not say */
  readonly lift?: number | null;
}

/** Graded pieces on sale: lengths in mm. */
export interface SizeRange {
  readonly from: number;
  readonly to: number;
  readonly step: number;
}

/** What graded pieces are stamped in. */
export type StampedIn = 'mm' | 'in';

/** Where a gap is taken: at the valve, or at the cam over a finger's pad. */
export type GapAt = 'valve' | 'cam';

/** How a clearance is set, with the figures that needs. Lengths in mm. */
export type Means =
  | {
      readonly kind: 'screw';
      /** where it acts; `finger-pivot` carries the ball at the end of a finger, an eccentric its rocker on the shaft */
      readonly end: 'valve' | 'pushrod' | 'finger-pivot' | 'eccentric';
      /** mm a turn; null where the source does not say: no angle is given then */
      readonly pitch: number | null;
      /** null where the source does not say */
      readonly rockerRatio: number | null;
      /** at the valve where it is not said */
      readonly gapAt?: GapAt | undefined;
      readonly locking: Locking;
      /** of the lock nut; the least where the source gives a range */
      readonly torqueNm: number | null;
      /** the most of a range */
      readonly torqueToNm?: number | null | undefined;
      /** of what holds by its own grip: the least it turns with, N·m; one that is slacker is renewed */
      readonly runsAtNm?: number | null | undefined;
      /** its figures as they stand in the source, where that is in other units */
      readonly asTyped?: AsTyped | undefined;
    }
  | {
      readonly kind: 'pivot-nut';
      readonly pitch: number | null;
      readonly rockerRatio: number | null;
      readonly locking: Locking;
      /** of the lock nut; the least where the source gives a range */
      readonly torqueNm: number | null;
      /** the most of a range */
      readonly torqueToNm?: number | null | undefined;
      /** of what holds by its own grip: the least it turns with, N·m; one that is slacker is renewed */
      readonly runsAtNm?: number | null | undefined;
      /** its figures as they stand in the source, where that is in other units */
      readonly asTyped?: AsTyped | undefined;
    }
  | {
      readonly kind: 'shim';
      readonly seat: 'on-bucket' | 'under-bucket' | 'under-finger';
      /** null where the source does not say: no piece is named then */
      readonly sizes: SizeRange | null;
      /** mm; null where it is not known */
      readonly diameter: number | null;
      readonly marking: string;
      /** the unit its pieces are stamped in; mm where it is not said */
      readonly stampedIn?: StampedIn;
      readonly seatOffset: number | null;
      /** valve arm over cam arm of a finger; 1 where it is not said */
      readonly rockerRatio?: number | undefined;
      /** where the gap over a finger is taken; at the cam where an older sheet does not say */
      readonly gapAt?: GapAt | undefined;
      /** under buckets: the maker allows the cam to be turned with nothing in; not where it is not said */
      readonly turnsBare?: boolean | undefined;
      /** on buckets: where the sheet puts the crank before a tool holds a valve down; nothing where it does not say */
      readonly toolCrank?: string | undefined;
    }
  | {
      readonly kind: 'bucket' | 'lash-cap';
      /** null where the source does not say */
      readonly sizes: SizeRange | null;
      readonly marking: string;
      readonly stampedIn?: StampedIn;
    };

/** A rocker that brakes the engine: a lash point beyond the valves, with an open span of its own. */
export interface BrakeRocker {
  readonly cylinder: string;
  /** crank degrees after its own cylinder's firing TDC */
  readonly opens: number;
  readonly closes: number;
}

/** What lifts a valve a little while the engine is cranked, so that it turns over easily. Degrees after firing TDC. */
export interface Decompressor {
  readonly role: 'intake' | 'exhaust';
  readonly opens: number;
  readonly closes: number;
}

/** One position of a maker's own table: the crank's place, and what is measured there. */
export interface MakersStop {
  readonly angle: number;
  readonly points: readonly string[];
}

/** How an engine stands before it is measured or opened, as its source says. */
export interface Readiness {
  /** hours it stands until it is cold; null: as the shop goes by */
  readonly coldHours: number | null;
  /** minutes after it was shut down in which figures for a hot engine hold; null where nobody says */
  readonly hotMinutes: number | null;
  /** a large engine: it is barred over, started by air, and has doors on its crankcase */
  readonly barred: boolean;
  /** it has no spark to take away: only its air stops one that runs away; left out in what was written before it was asked */
  readonly noSpark?: boolean | undefined;
  /** minutes its crankcase doors stay shut after it stopped */
  readonly doorsMinutes: number | null;
  /** what comes off before the cover does and is no part of the valve train: plugs, a tank */
  readonly access: readonly string[];
}

/** One position of a maker's table of pairs: the valves seen fully open, and what is measured then. */
export interface MakersPair {
  /** lash points, by our names */
  readonly open: readonly string[];
  readonly points: readonly string[];
}

/** Which valve stands where along a head whose valves stand in one row: a letter a valve, `I` or `E`, from the front. */
export type ValveOrder = string;

/** Valves in one row along each head, in place of intakes and exhausts across from each other. */
export interface ValveRow {
  /** each leans to its own side, so that the row is drawn as two that are near */
  readonly splayed: boolean;
  readonly A: ValveOrder;
  /** empty where there is no second head */
  readonly B: ValveOrder;
}

/** What is seen at one position of the crank besides its mark: it tells which of the two turns it is. */
export interface PositionSign {
  /** crank degrees over both turns, 0 to under 720 */
  readonly at: number;
  /** how the cams' marks stand: `toward each other`, `letters up`; empty where that is not said */
  readonly cams: string;
  /** where the rotor points, or what stands for it; empty where there is none */
  readonly rotor: string;
}

/** Where the crank is put, and what holds it and what it drives, before a cam comes out. */
export interface CamsOutPosition {
  /** crank degrees, 0 to under 720; null where it is told by what locks it alone */
  readonly at: number | null;
  /** what locks it: a pin, a template, a bar; empty where the source names none */
  readonly lockedBy: string;
  /** what comes before any cap is slackened: tension off, chain held */
  readonly first: string;
}

/** What drives the cams. */
export type CamDrive = 'chain' | 'belt' | 'gears' | 'unsaid';

/** A kind of engine, as far as its valve gear goes. */
export interface Pattern {
  readonly layout: Layout;
  readonly bankAngle: number | null;
  readonly cylinders: readonly Cylinder[];
  readonly turns: 'clockwise' | 'anticlockwise';
  readonly seenFrom: 'front' | 'flywheel';
  readonly valves: { readonly intake: number; readonly exhaust: number };
  /** a bridge carries the pair on one lash point */
  readonly bridges: { readonly intake: boolean; readonly exhaust: boolean };
  /** whether a bridge rides loose on its pair, or is guided and balanced by a screw at one stem; loose where it is not said */
  readonly bridgeKind?: 'plain' | 'guided';
  /** a valve drawn shut by a rocker of its own has a closing side as well */
  readonly closingSide: boolean;
  readonly brakes: readonly BrakeRocker[];
  /** which side of an in-line head the exhaust is on, seen from the front with the crank below */
  readonly exhaustSide: 'left' | 'right';
  readonly timing: ValveTiming & { readonly assumed: boolean };
  /** crank degrees kept clear of both ramps before a point may be measured */
  readonly margin: number;
  /** crank degrees at which the pulley or flywheel shows a mark */
  readonly marks: readonly number[];
  /** what marks are called, and where they are looked at; absent where nobody wrote that down */
  readonly markNames?: readonly MarkName[] | undefined;
  /** what is seen at a position besides its mark */
  readonly positionSigns?: readonly PositionSign[] | undefined;
  /** where the crank stands while cams come out; absent or null where the source does not say */
  readonly camsOut?: CamsOutPosition | null | undefined;
  /** the crank may be turned back a little; a tensioner or a belt may forbid it */
  readonly turnsBack?: boolean;
  readonly camDrive?: CamDrive;
  /** how many cams turn above each head; not said, they are guessed where parts are listed, and one is taken to work a whole head */
  readonly camsAbove?: 'one' | 'two' | 'unsaid';
  /** how it stands before it is measured or opened; absent where its source says nothing of it */
  readonly readiness?: Readiness | undefined;
  /** the bolts of the cover hold the cams' caps or their carrier */
  readonly coverHoldsCams?: boolean;
  readonly decompressor?: Decompressor | null;
  /** the maker's own table of where to turn; it governs */
  readonly makersStops?: readonly MakersStop[];
  /** the maker's own table of which valve stands open while others are measured; it governs the school that goes by it */
  readonly makersPairs?: readonly MakersPair[] | undefined;
  /** what the maker calls a valve, a brake rocker or a cylinder, by our name of it: `1E` is `12`; ours stays beside */
  readonly makersNames?: Readonly<Record<string, string>> | undefined;
  /** absent or null: across from each other */
  readonly valveRow?: ValveRow | null | undefined;
  readonly means: Means;
  readonly roleMeans: Partial<Readonly<Record<Role, Means>>>;
}
