import type { Lists } from '../../../wire/company';
import { api } from './api';
import type { AppDispatch, RootState } from './store';

type Added = Partial<Pick<Lists, 'clients' | 'costCodes'>>;

/** Puts what was just added into the lists at once, so that nobody waits until they are read again to go on with it. */
async function addToLists(
  added: Added,
  lifecycle: { dispatch: unknown; getState: () => unknown; queryFulfilled: Promise<unknown> },
) {
  try {
    await lifecycle.queryFulfilled;
  } catch {
    return;
  }
  const dispatch = lifecycle.dispatch as AppDispatch;
  for (const args of api.util.selectCachedArgsForQuery(lifecycle.getState() as RootState, 'lists'))
    dispatch(
      api.util.updateQueryData('lists', args, (lists) => {
        lists.clients.push(...(added.clients ?? []));
        lists.costCodes.push(...(added.costCodes ?? []));
      }),
    );
  dispatch(api.util.updateQueryData('timeLists', undefined, (lists) => void lists.costCodes.push(...(added.costCodes ?? []))));
}

/** What happens at once when something is added, before the books are read again. */
export function followAdditions(): void {
  api.enhanceEndpoints({
    endpoints: {
      addClient: {
        onQueryStarted: ({ body: { code, name, termsDays } }, lifecycle) =>
          addToLists({ clients: [{ code, name, termsDays: termsDays ?? null }] }, lifecycle),
      },
      addCostCodes: {
        onQueryStarted: ({ body: { codes } }, lifecycle) => addToLists({ costCodes: [...codes] }, lifecycle),
      },
    },
  });
}
