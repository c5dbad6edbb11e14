import { present } from '../../core/errors/known';
import { userCalls } from '../../wire/users';
import type { Database } from '../db/database';
import type { Context } from '../http/context';
import { handle, prepared } from '../http/handlers';
import { narrowing, saveNarrowing } from './narrowing';
import { beginSecondFactor, confirmSecondFactor, endSecondFactor } from './secondFactor';
import {
  acceptInvitation,
  assertLocal,
  changePassword,
  checkedUser,
  demoSignIn,
  invited,
  makeOwner,
  newPassword,
  signIn,
  signOut,
} from './signIn';
import { SIGN_IN_FAILURES } from './queries';
import { endSession, endUserSessions, inviteAgain, inviteUser, ownSessions, saveUser, userList } from './users';

/** Asks for the password of whoever is signed in once more. */
const ownPassword = (database: Database, { body }: { body: { password: string } }, { workers, person }: Context) =>
  checkedUser(database, workers, { who: present(person ?? undefined).email, password: body.password });

export const userHandlers = handle(userCalls, {
  signIn: prepared({
    prepare: (database, { body }, { workers }) => checkedUser(database, workers, body),
    run: (command, { body }, user, context) => signIn(command, user.id, context, body.code),
  }),
  demoSignIn: (command, { body }, context) => demoSignIn(command, body.role, context),
  // A stolen session does not replace the second factor: the password is asked for.
  beginSecondFactor: prepared({
    prepare: ownPassword,
    run: (command, _args, _user, context) => beginSecondFactor(command, context),
  }),
  confirmSecondFactor: (command, { body }, context) => confirmSecondFactor(command, body.code, context),
  endSecondFactor: prepared({
    prepare: ownPassword,
    run: (command, _args, _user, context) => endSecondFactor(command, context),
  }),
  signOut: (command, _args, context) => signOut(command, context),
  makeOwner: prepared({
    prepare: (_database, { body }, context) => {
      assertLocal(context);
      return newPassword(context.workers, body.password, [body.name, body.email]);
    },
    run: (command, { body }, hash, context) => makeOwner(command, body, hash, context),
  }),
  invitation: async (sql, { token }, { now }) => {
    const { name, role } = await invited(sql, token, now().toISOString());
    return { name, role };
  },
  acceptInvitation: prepared({
    prepare: async (database, { token, body }, { workers, now }) => {
      const { name, email } = await database.read((sql) => invited(sql, token, now().toISOString()));
      return newPassword(workers, body.password, [name, email]);
    },
    run: (command, { token }, hash, context) => acceptInvitation(command, token, hash, context),
  }),
  changePassword: prepared({
    prepare: async (database, { body }, { workers, person }) => {
      const { name, email } = present(person ?? undefined);
      await checkedUser(database, workers, { who: email, password: body.old });
      return newPassword(workers, body.password, [name, email]);
    },
    run: (command, _args, hash, context) => changePassword(command, hash, context),
  }),
  sessions: (sql, _args, { person }) => ownSessions(sql, present(person ?? undefined)),
  endSession: (command, { id }, { person }) => endSession(command, id, present(person ?? undefined)),
  endUserSessions: (command, { id }) => endUserSessions(command, id),
  narrowing: (sql) => narrowing(sql),
  saveNarrowing: (command, { body }) => saveNarrowing(command, body),
  users: (sql) => userList(sql),
  signInFailures: (sql) => sql.all(SIGN_IN_FAILURES),
  inviteUser: (command, { body }, context) => inviteUser(command, body, context),
  inviteAgain: (command, { id }, context) => inviteAgain(command, id, context),
  saveUser: (command, { id, body }) => saveUser(command, id, body),
});
