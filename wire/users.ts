import type { USER_LIFE, UserState } from '../core/users/userLife';
import * as v from 'valibot';
import { PART_NAMES, type Part } from '../core/rights/parts';
import { ROLES, type Role } from '../core/rights/rights';
import { LONGEST } from '../core/users/password';
import { command, query } from './call';
import { filled, list, text } from './fields';

const role = v.picklist(ROLES, `expected one of ${ROLES.join(', ')}`);
const email = v.pipe(filled(), v.email('expected an address such as name@company.example'));
/** As typed: not trimmed, and of any length up to the longest, so that its own rule says what is wrong with it. */
const password = v.pipe(v.string('expected text'), v.maxLength(LONGEST, `expected at most ${LONGEST} characters`));

/** Of an app on a second device, or one of the recovery codes. */
const code = v.pipe(v.string('expected text'), v.maxLength(40, 'expected at most 40 characters'));

export const signInInput = v.strictObject({ who: filled(), password, code: v.optional(code, '') });
export const codeInput = v.strictObject({ code });
export const ownPasswordInput = v.strictObject({ password });
export const demoInput = v.strictObject({ role });
export const ownerInput = v.strictObject({ name: filled(), email, password });
export const acceptInvitationInput = v.strictObject({ password });
export const passwordInput = v.strictObject({ old: password, password });
export const userInput = v.strictObject({
  name: filled(),
  email,
  role,
  /** Of a manager: sees every job, not only those of the team. */
  allJobs: v.boolean('expected true or false'),
});
export type UserInput = v.InferOutput<typeof userInput>;
export const savedUserInput = v.strictObject({
  ...userInput.entries,
  closed: v.boolean('expected true or false'),
  /** The digest of the user as the page showed them. */
  seen: text(64),
});

/** Somebody who may sign in, or is invited to. */
export interface UserRow extends UserInput {
  id: number;
  /** Digest of what a change of it must have seen. */
  seen: string;
  closed: boolean;
  state: UserState;
  /** What may be done with the account as it is. */
  can: Record<keyof typeof USER_LIFE, boolean>;
  /** The last day the invitation may be used; null where there is none. */
  invitedUntil: string | null;
  /** When it was last asked for something in a session that has not ended. */
  seenAt: string | null;
  sessions: number;
}

export interface SessionRow {
  id: number;
  beganAt: string;
  seenAt: string;
  /** The program and address it began from. */
  from: string;
  /** The one that asks. */
  own: boolean;
}

/** Somebody who is signed in, with what the screens offer by it. */
export interface SignedInView {
  name: string;
  email: string;
  role: Role;
  secondFactor: boolean;
  /** What the owner has removed from the role. */
  narrowed: readonly Part[];
}

const removed = v.strictObject({ part: v.picklist(PART_NAMES, 'expected one of the parts of the work'), role });
export const narrowingInput = v.strictObject({
  /** The digest of it as the page showed it. */
  seen: text(64),
  removed: list(removed, PART_NAMES.length * ROLES.length, 'parts'),
});
export type NarrowingInput = v.InferOutput<typeof narrowingInput>;

/** A sign-in that failed: what was typed, whose name it is (null: nobody's), and the program and address it came from. */
export interface SignInFailure {
  id: number;
  at: string;
  who: string;
  name: string | null;
  from: string;
}

export const userCalls = {
  /** `code`: the password is right, and a code of the second factor is to be typed with it. */
  signIn: command<{ code: boolean }>('open')('/sign-in', { input: signInInput, secret: true }),
  demoSignIn: command('open')('/sign-in/demo', { input: demoInput, secret: true }),
  signOut: command('signed-in')('/sign-out', { secret: true }),
  makeOwner: command('open')('/first-owner', { input: ownerInput, secret: true }),
  invitation: query<{ name: string; role: Role }>('open')('/invitations/:token'),
  acceptInvitation: command('open')('/invitations/:token', { input: acceptInvitationInput, secret: true }),
  changePassword: command('signed-in')('/account/password', { input: passwordInput, secret: true }),
  /** A key for the app, as text and as an image to be scanned; it holds once a code of it was typed. */
  beginSecondFactor: command<{ key: string; image: string }>('signed-in')('/account/second-factor', {
    input: ownPasswordInput,
    secret: true,
  }),
  /** Gives back recovery codes, which are shown once. */
  confirmSecondFactor: command<{ recovery: string[] }>('signed-in')('/account/second-factor/confirm', {
    input: codeInput,
    secret: true,
  }),
  endSecondFactor: command('signed-in')('/account/second-factor/end', { input: ownPasswordInput, secret: true }),
  sessions: query<SessionRow[]>('signed-in')('/account/sessions'),
  endSession: command('signed-in')('/account/sessions/:id', { method: 'DELETE' }),
  /** Signs somebody out everywhere, such as on a phone that was lost. */
  endUserSessions: command('manage-users')('/users/:id/sessions', { method: 'DELETE' }),
  narrowing: query<NarrowingInput>('manage-users')('/roles'),
  saveNarrowing: command('manage-users')('/roles', { method: 'PUT', input: narrowingInput }),
  users: query<UserRow[]>('manage-users')('/users'),
  signInFailures: query<SignInFailure[]>('manage-users')('/sign-in/failures'),
  /** Gives back the link for whoever is invited; nobody else sees it. */
  inviteUser: command<{ link: string }>('manage-users')('/users', { input: userInput, secret: true }),
  /** A new link, also for somebody who has lost the password. */
  inviteAgain: command<{ link: string }>('manage-users')('/users/:id/invitation', { secret: true }),
  saveUser: command('manage-users')('/users/:id', { method: 'PUT', input: savedUserInput }),
};
