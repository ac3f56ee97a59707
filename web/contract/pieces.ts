import { LOOK_KINDS, type LookKind } from '@maypole/core/looks/look';
import { withoutMark } from '@maypole/core/piece/bundle';
import { keptSheet, type KeptSheet } from '@maypole/core/explore/sheet-settings';
import { z } from 'zod';
import { isKeepable, LIMITS } from '@maypole/core/declare/limits';
import { body, exactText, keptJson, text, whole, wholeText } from './fields';

/** Largest document in bytes. */
export const MAX_DOCUMENT = LIMITS.document;
/** Largest thumbnail strip, in bytes. */
export const MAX_THUMBNAIL = 4 * 1024 * 1024;

/** Largest file kept with a piece in bytes: a PGM of 8,192 × 8,192 with its header. */
export const MAX_ASSET = 64 * 1024 * 1024 + 4096;

/** Days that a piece stays in the bin. */
export const BIN_DAYS = 60;

/** A file that has been stored. */
export interface KeptAsset {
  readonly fingerprint: string;
  readonly name: string;
  /** How large it is, in words. */
  readonly words: string;
}

/** What the shelf shows of a piece. */
export interface PieceSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly frames: number | null;
  readonly fps: number | null;
  /** Pixels; null if unknown. */
  readonly width: number | null;
  readonly height: number | null;
  readonly gaps: number | null;
  /** Why it cannot be opened; null if it can. */
  readonly trouble: string | null;
  readonly updatedAt: string;
  /** Revision of the stored thumbnail; null for none. */
  readonly thumbnailRevision: number | null;
  readonly labels: readonly string[];
  /** Whether it has finished files. */
  readonly delivered: boolean;
  /** When it was put into the bin; null if on the shelf. */
  readonly deletedAt: string | null;
}

/** A stored finish, light set-up, camera or scene. */
export interface KeptLook {
  readonly id: string;
  readonly kind: LookKind;
  readonly name: string;
  /** A small piece that contains it, as text. */
  readonly source: string;
}

export interface StoredPiece {
  readonly id: string;
  readonly revision: number;
  /** The document, character for character. */
  readonly source: string;
}

/** An earlier revision, and the sheet of variations stored with it. */
export interface StoredRevision extends StoredPiece {
  readonly sheet: KeptSheet | null;
}

/** Who saved a revision, and when. */
export interface Saved {
  /** Their name; null if unknown, as without accounts. */
  readonly by: string | null;
  readonly at: string;
}

/** What a page learns about a piece it has open. */
export interface Around {
  /** Other pages that have it open: whose, and whether in another browser or in a tab of this one. */
  readonly others: readonly {
    readonly name: string | null;
    readonly browser: 'this' | 'other';
    readonly own: boolean;
  }[];
  /** The current revision, and which page saved it. */
  readonly head: Saved & { readonly revision: number; readonly own: boolean };
}

export interface RevisionSummary {
  readonly number: number;
  readonly basedOn: number | null;
  /** Kept beside: a take, or a save that came too late. */
  readonly aside: boolean;
  /** Its name; null for none. */
  readonly mark: string | null;
  /** Whether a sheet of variations is stored with it. */
  readonly sheet: boolean;
  readonly createdAt: string;
}

export interface PastOfPiece {
  readonly revisions: RevisionSummary[];
  /** Their size in the database in bytes. */
  readonly bytes: number;
}

/** Answer to a save that came too late: `head` is the current revision, `kept` the number of yours. */
export interface Conflict {
  readonly error: string;
  readonly head: number;
  readonly kept: number;
  /** Who saved the current revision, and when. */
  readonly saved: Saved;
}

/** A document. A text of n characters never has fewer bytes than that. */
const source = z
  .string('The document must be sent as text.')
  .min(2, 'The document is empty.')
  .max(
    MAX_DOCUMENT,
    `This document is larger than ${MAX_DOCUMENT / 1024 / 1024} MB, the most that is taken; a piece is far smaller.`,
  )
  .refine(isKeepable, 'This document holds the character U+0000, or half of one; take it out.')
  // A byte-order mark is no part of the document.
  .transform(withoutMark);

const bundledAsset = body({ name: exactText('The name of a file', 200), data: z.string() });
export const createBody = body({
  source,
  assets: z.record(z.string().regex(/^[0-9a-f]{64}$/), bundledAsset).optional(),
});
/** Identifier of the sending page. */
const client = z.uuid('“client” must be the number of a page.');
export const saveBody = body({
  source,
  basedOn: whole('“basedOn”, the number of the revision you started from,', 1),
  /** The saving page and its version number; see past/line.ts. */
  line: body({ client, count: whole('“count”', 1) }).optional(),
});
/** A page reports that it has a piece open, or no longer. */
export const hereBody = body({
  client,
  browser: z.uuid('“browser” must be the number of a browser.'),
  gone: z.boolean().optional(),
});
export const seamBody = body({
  revision: whole('“revision”', 1),
  gaps: whole('“gaps”', 0, 100_000),
});
export const lookKind = z.enum(LOOK_KINDS, `A look is one of ${LOOK_KINDS.join(', ')}.`);
export const lookBody = body({ kind: lookKind, source });
export const lookId = z.uuid('This is not the address of a look.');
export const pieceId = z.uuid('This is not the address of a piece.');
export const fingerprint = z.string().regex(/^[0-9a-f]{64}$/, 'This is not the fingerprint of a file.');
const markName = text('A name', 80, 1);
/** A name for a revision, or null to remove it. */
export const markBody = body({ mark: markName.nullable() });
/** A named version kept beside, with its sheet of variations if that is what is kept. */
export const takeBody = body({
  source,
  mark: markName,
  sheet: keptJson('A sheet', keptSheet).optional(),
});

/** Most pieces changed by one request, and most labels of a piece. */
export const [MOST_TOGETHER, MOST_LABELS] = [1000, 24];
const label = text('A label', 40, 1);
/** Something done to several pieces at once. */
export const severalBody = z.discriminatedUnion('does', [
  body({ does: z.enum(['bin', 'restore']), ids: z.array(z.uuid()).min(1).max(MOST_TOGETHER) }),
  body({ does: z.enum(['label', 'unlabel']), label, ids: z.array(z.uuid()).min(1).max(MOST_TOGETHER) }),
]);
export type SeveralEdit = z.infer<typeof severalBody>;

/** Bytes of a sheet's film. */
export const MAX_FILM = 96 * 1024 * 1024;
export const filmQuery = body({
  pictures: wholeText('“pictures”', 1, 64),
  fps: z.coerce.number('“fps” must say how many play in a second.').min(0.01).max(120),
});

export const revisionNumber = wholeText('The number of a revision', 1);
