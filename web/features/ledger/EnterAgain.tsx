import { useNavigate } from 'react-router';
import type { PostingView } from '../../../wire/ledger';
import { useLazyCostPageQuery } from '../../ground/api/api';
import { useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { useAttempt } from '../../ground/useAttempt';
import { layOutCosts } from '../../ground/unpostedCosts';
import { Refused } from '../../kit/States';

/** More lines than this are no mistake of typing. */
const MOST = 500;

/** Lays the lines of a reversed document out to be entered again, beneath what is being entered. */
export function EnterAgain({ posting }: { posting: PostingView }) {
  const { exact } = useCurrency();
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const [load, { isFetching }] = useLazyCostPageQuery();
  const { refused, attempt } = useAttempt();
  if (posting.reversedBy === null || posting.entryCount === 0 || posting.entryCount > MOST) return null;
  const fillSheet = async () => {
    const query = { asOf: '2199-12', posting: String(posting.id), limit: String(MOST) };
    const { rows } = await load(query).unwrap();
    layOutCosts(rows, exact);
  };
  const count = `${posting.entryCount} ${posting.entryCount === 1 ? 'line' : 'lines'}`;
  const enter = async () => {
    if (await attempt(fillSheet, `${count} of document ${posting.id} laid out to be corrected`))
      void navigate(withMonth('/costs'));
  };
  return (
    <>
      <button type="button" className="button mb-4" disabled={isFetching} onClick={() => void enter()}>
        Enter its lines again …
      </button>
      {refused && <Refused message={refused.message} />}
    </>
  );
}
