import { present } from '../../core/errors/known';
import { userCalls } from '../../wire/users';
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
import { endSession, inviteAgain, inviteUser, ownSessions, saveUser, userList } from './users';

export const userHandlers = handle(userCalls, {
  signIn: prepared({
    prepare: (database, { body }, { workers }) => checkedUser(database, workers, body),
    run: (command, { body }, user, context) => signIn(command, user.id, context, body.code),
  }),
  demoSignIn: (command, { body }, context) => demoSignIn(command, body.role, context),
  beginSecondFactor: (command, _args, context) => beginSecondFactor(command, context),
  confirmSecondFactor: (command, { body }, context) => confirmSecondFactor(command, body.code, context),
  endSecondFactor: prepared({
    prepare: (database, { body }, { workers, person }) =>
      checkedUser(database, workers, { who: present(person ?? undefined).email, password: body.password }),
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
  narrowing: (sql) => narrowing(sql),
  saveNarrowing: (command, { body }) => saveNarrowing(command, body),
  users: (sql) => userList(sql),
  inviteUser: (command, { body }, context) => inviteUser(command, body, context),
  inviteAgain: (command, { id }, context) => inviteAgain(command, id, context),
  saveUser: (command, { id, body }) => saveUser(command, id, body),
});
