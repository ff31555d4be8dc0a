import { big, json, key, long, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

/** Who signs in, in whichever programmes. */
export const account = table(
  'account',
  { belongs: 'account' },
  {
    id: key(),
    /** As `addressOf` writes it; of an account that ended, what nobody can write. */
    email: plain(),
    passwordHash: plain(),
    /** The secret of the second step, sealed; null while there is none. */
    totp: maybe(long(plain())),
    /** The last step of time whose code was used: a code works once. */
    totpStep: big(),
    version: whole(),
  },
);
export type AccountRow = RowOf<typeof account>;

/** Somebody in one programme. */
export const member = table(
  'member',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    accountId: ref(),
    /** The same as their account's: the programme writes to it. */
    email: plain(),
    name: plain(),
    role: plain(),
    status: plain<'active' | 'removed'>(),
    version: whole(),
  },
);
export type MemberRow = RowOf<typeof member>;

export const apiToken = table(
  'api_token',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    name: notes(),
    role: plain(),
    tokenHash: plain(),
    createdAt: moment(),
    expiresAt: moment(),
    revokedAt: maybe(moment()),
    /** The member who made it; null where nobody knows. */
    createdBy: maybe(ref()),
  },
);
export type ApiTokenRow = RowOf<typeof apiToken>;

/** A code that stands in for the second step once, when the telephone is lost. */
export const recoveryCode = table(
  'recovery_code',
  { belongs: 'accountId' },
  {
    id: key(),
    accountId: ref(),
    codeHash: plain(),
    usedAt: maybe(moment()),
  },
);
export type RecoveryCodeRow = RowOf<typeof recoveryCode>;

/** A browser that somebody has signed in from: others' guesses do not lock it out. */
export const knownDevice = table(
  'known_device',
  { belongs: 'accountId', retention: { days: 180, from: 'seenAt' } },
  {
    id: key(),
    accountId: ref(),
    tokenHash: plain(),
    createdAt: moment(),
    seenAt: moment(),
  },
);
export type KnownDeviceRow = RowOf<typeof knownDevice>;

/** Something that whoever guards the doors wants to know of. */
export const securityEvent = table(
  'security_event',
  { belongs: 'programmeId', retention: { days: 365, from: 'at' } },
  {
    id: key(),
    /** null where it belongs to no programme: an address nobody has. */
    programmeId: maybe(ref()),
    at: moment(),
    kind: plain(),
    actorId: maybe(ref()),
    ip: plain(),
    detail: plain(),
  },
);
export type SecurityEventRow = RowOf<typeof securityEvent>;

/** One browser signed in; it ends by time, by signing out, or from afar. */
export const signIn = table(
  'sign_in',
  { belongs: 'accountId', retention: { days: 90, from: 'expiresAt' } },
  {
    id: key(),
    accountId: ref(),
    /** In which programme they are in this browser now; null where they look over programmes and belong to none. */
    memberId: maybe(ref()),
    device: plain(),
    createdAt: moment(),
    expiresAt: moment(),
    endedAt: maybe(moment()),
    /** When it was last used, to within a few minutes: it ends when it lies idle. */
    seenAt: moment(),
    /** When the password was last given in it. */
    provenAt: moment(),
    /** 1: the second step has not been taken yet. */
    awaitsCode: whole(),
  },
);
export type SignInRow = RowOf<typeof signIn>;

/** A link that works once, until it ends: an invitation, or a new password. */
export const accessLink = table(
  'access_link',
  { belongs: 'programmeId', of: 'household', retention: { days: 90, from: 'expiresAt' } },
  {
    id: key(),
    /** null in a new password of who belongs to no programme. */
    programmeId: maybe(ref()),
    purpose: plain<'invite' | 'reset' | 'crew' | 'family'>(),
    /** '' in the first coordinator's link: they give their own. */
    email: plain(),
    role: maybe(plain()),
    memberId: maybe(ref()),
    tokenHash: plain(),
    createdAt: moment(),
    expiresAt: moment(),
    usedAt: maybe(moment()),
    createdBy: maybe(ref()),
    /** Of a page of somebody of the crew: whose it is. Such a link works until it ends. */
    crewId: maybe(ref()),
    /** Of a family's page of its kit: whose it is, and of which session. */
    householdId: maybe(ref()),
    sessionId: maybe(ref()),
  },
);
export type AccessLinkRow = RowOf<typeof accessLink>;

/** Somebody looked at what people must avoid. */
export const needLook = table(
  'need_look',
  { belongs: 'programmeId', retention: { days: 730, from: 'at' } },
  {
    id: key(),
    programmeId: ref(),
    actorId: ref(),
    actorName: plain(),
    page: plain(),
    entityId: ref(),
    people: whole(),
    at: moment(),
  },
);
export type NeedLookRow = RowOf<typeof needLook>;

export const change = table(
  'change_log',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    at: moment(),
    actorId: maybe(ref()),
    action: plain(),
    entity: plain(),
    entityId: ref(),
    detail: json<unknown>('log'),
  },
);
export type ChangeRow = RowOf<typeof change>;

/** A city, or another body that stands over several programmes. */
export const city = table(
  'city',
  { belongs: 'city' },
  {
    id: key(),
    name: plain(),
  },
);
export type CityRow = RowOf<typeof city>;

/** Somebody who looks over a city's programmes, or (without a city) after the installation itself. */
export const overseer = table(
  'overseer',
  { belongs: 'accountId' },
  {
    id: key(),
    accountId: ref(),
    cityId: maybe(ref()),
    name: plain(),
    createdAt: moment(),
  },
);
export type OverseerRow = RowOf<typeof overseer>;
