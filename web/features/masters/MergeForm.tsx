import { useState } from 'react';
import { MASTERS, type MasterKind } from '../../../core/masters/masters';
import type { MasterRow } from '../../../wire/masters';
import { useMergeMasterMutation, useMergePreviewQuery } from '../../ground/api/api';
import { useAttempt } from '../../ground/useAttempt';
import { Choice } from '../../kit/choice/Choice';
import { Field } from '../../kit/Field';
import { Refused } from '../../kit/States';
import { SureButton } from '../../kit/SureButton';

interface MergeFormProps {
  kind: MasterKind;
  row: MasterRow;
  rows: readonly MasterRow[];
  onDone: (code: string) => void;
}

/** Merges one into another of its kind; what that moves is shown before. */
export function MergeForm({ kind, row, rows, onDone }: MergeFormProps) {
  const [into, setInto] = useState('');
  const others = rows.filter((it) => it.code !== row.code && !it.closed);
  const { data } = useMergePreviewQuery({ kind, code: row.code, into }, { skip: into === '', refetchOnMountOrArgChange: true });
  const [merge, { isLoading }] = useMergeMasterMutation();
  const { refused, attempt } = useAttempt();
  if (others.length === 0) return null;
  const { one } = MASTERS[kind];
  const run = async (seen: string) => {
    const work = () => merge({ kind, code: row.code, into, body: { seen } }).unwrap();
    if (await attempt(work, `${row.code} is merged into ${into}`)) onDone(into);
  };
  return (
    <section className="mt-6 border-t border-[var(--hair)] pt-4">
      <Field label={`Merge this ${one} into`}>
        <Choice
          value={into}
          options={[['', 'Choose'], ...others.map((it) => [it.code, `${it.code} ${it.name}`] as const)]}
          onChange={setInto}
        />
      </Field>
      {into !== '' && data && (
        <div className="mt-3">
          <p className="m-0 mb-2">
            {data.refused ??
              (data.moves.length > 0
                ? `${data.moves.join(', ')} will be of ${into}, and ${row.code} is deleted. What is posted keeps its texts.`
                : `Nothing uses ${row.code}: it is deleted.`)}
          </p>
          {data.refused === null && (
            <SureButton className="button" disabled={isLoading} onSure={() => void run(data.seen)}>
              {`Merge ${row.code} into ${into}`}
            </SureButton>
          )}
        </div>
      )}
      {refused && <Refused message={refused.message} />}
    </section>
  );
}
