import { z } from 'zod';
import { Id, Instant } from './ids';

/** Who may see what is handed on at an address: everybody; who has the address; who knows the passphrase besides. */
export const PublicationAccess = z.enum(['listed', 'unlisted', 'passphrase']);
export type PublicationAccess = z.infer<typeof PublicationAccess>;

const ofPublication = {
  address: z.string(),
  access: PublicationAccess,
  madeAt: Instant,
  /** When it was withdrawn: who comes is told that it is gone. */
  withdrawnAt: Instant.nullable(),
};

/** GET /api/dossiers/{id}/publication; null when it was never handed on at an address. */
export const Publication = z.object({
  publication: z.object({ ...ofPublication, atom: z.string(), json: z.string(), fragment: z.string() }).nullable(),
});
export type Publication = z.infer<typeof Publication>;

/** PUT /api/dossiers/{id}/publication: hands it on, or to others than before. */
export const PublicationWish = z.object({
  access: PublicationAccess,
  /** Null keeps the one there is. */
  passphrase: z.string().min(6, 'public-passphrase-too-short').max(200).nullable(),
  /** Gives it another address; the old one ends. */
  renew: z.boolean().default(false),
});

/** What a dossier can be taken along as. */
export const DossierFormat = z.enum([
  'docx',
  'epub',
  'xlsx',
  'html',
  'markdown',
  'csv',
  'links',
  'bookmarks',
  'opml',
  'letter',
  'bibtex',
  'ris',
  'csl-json',
  'references',
]);
export type DossierFormat = z.infer<typeof DossierFormat>;

export const DossierParams = z.object({ id: Id });
export const DossierFileParams = DossierParams.extend({ format: DossierFormat });
/** Whether it is told how far the file is while it is made (core/client/told-file). */
export const DossierFileAsked = z.object({ told: z.stringbool().default(false) });

/** POST /api/dossiers/{id}/letter: sends it as a mail. */
export const DossierLetter = z.object({ to: z.email().max(254), words: z.string().trim().max(2000) });
