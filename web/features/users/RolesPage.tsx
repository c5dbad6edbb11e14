import { useState } from 'react';
import { canBeRemoved, NARROWED_ROLES, PART_NAMES, PARTS, type Narrowed, type Part } from '../../../core/rights/parts';
import type { Role } from '../../../core/rights/rights';
import { useNarrowingQuery, useSaveNarrowingMutation } from '../../ground/api/api';
import { Loaded } from '../../ground/Loaded';
import { useAttempt } from '../../ground/useAttempt';
import { PageHead } from '../../kit/PageHead';
import { Refused } from '../../kit/States';
import { useUnsaved } from '../../kit/unsaved';

/** What each role may see, export and do; the owner removes parts of it from roles. */
export function RolesPage() {
  const data = useNarrowingQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <div className="page max-w-[980px]">
      <PageHead title="Roles" />
      <p className="mt-0">
        Each role may see, export and do what is ticked. Untick a part to remove it: it is neither offered nor carried out for
        anybody of that role, from the next request on. An owner has everything; the site sees its own jobs, without money.
      </p>
      <Loaded of={data} what="the roles">
        {({ seen, removed }) => <Roles key={seen} seen={seen} saved={removed} />}
      </Loaded>
    </div>
  );
}

const GROUPS = [...new Set(PART_NAMES.map((it) => PARTS[it].group))];
const same = (a: Narrowed) => (b: Narrowed) => a.part === b.part && a.role === b.role;

function Roles({ seen, saved }: { seen: string; saved: readonly Narrowed[] }) {
  const [removed, setRemoved] = useState<readonly Narrowed[]>(saved);
  const [save, { isLoading }] = useSaveNarrowingMutation();
  const { refused, attempt } = useAttempt();
  const changed = removed.length !== saved.length || removed.some((it) => !saved.some(same(it)));
  useUnsaved(changed);
  const turn = (it: Narrowed) =>
    setRemoved(removed.some(same(it)) ? removed.filter((other) => !same(it)(other)) : [...removed, it]);
  return (
    <>
      <div className="mb-3 flex items-center gap-4">
        <button
          type="button"
          className="button main"
          disabled={!changed || isLoading}
          onClick={() =>
            void attempt(() => save({ body: { seen, removed: [...removed] } }).unwrap(), 'Roles saved; they hold from now on')
          }
        >
          {changed ? 'Save roles' : 'Saved'}
        </button>
        <span className="note">{removed.length === 0 ? 'Nothing is removed' : `${removed.length} removed`}</span>
      </div>
      {refused && <Refused message={refused.message} />}
      <table className="ledger static-foot" aria-label="Roles">
        <thead>
          <tr>
            <th>Part</th>
            {NARROWED_ROLES.map((role) => (
              <th key={role} className="w-[110px] text-center">
                {role}
              </th>
            ))}
          </tr>
        </thead>
        {GROUPS.map((group) => (
          <tbody key={group}>
            <tr className="group">
              <th colSpan={1 + NARROWED_ROLES.length} scope="rowgroup">
                {group}
              </th>
            </tr>
            {PART_NAMES.filter((it) => PARTS[it].group === group).map((part) => (
              <Row key={part} part={part} removed={removed} onTurn={turn} />
            ))}
          </tbody>
        ))}
      </table>
    </>
  );
}

function Row({ part, removed, onTurn }: { part: Part; removed: readonly Narrowed[]; onTurn: (it: Narrowed) => void }) {
  const cell = (role: Role) => {
    const it = { part, role };
    if (!canBeRemoved(it)) return <span className="note">–</span>;
    const has = !removed.some(same(it));
    return <input type="checkbox" checked={has} aria-label={`${PARTS[part].title}: ${role}`} onChange={() => onTurn(it)} />;
  };
  return (
    <tr>
      <td>{PARTS[part].title}</td>
      {NARROWED_ROLES.map((role) => (
        <td key={role} className="text-center">
          {cell(role)}
        </td>
      ))}
    </tr>
  );
}
