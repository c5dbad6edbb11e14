import { peopleCalls } from '../../wire/people';
import { handle } from '../http/handlers';
import { makeAnonymous, personalData } from './people';

export const peopleHandlers = handle(peopleCalls, {
  personalData: async (database, { name }, { now }) => ({
    type: 'application/json',
    name: `${name}.json`,
    content: JSON.stringify(await database.read((sql) => personalData(sql, name, now().toISOString())), null, 2),
  }),
  makeAnonymous: (command, { name, body }) => makeAnonymous(command, name, body),
});
