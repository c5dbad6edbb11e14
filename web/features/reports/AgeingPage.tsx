import { at, present } from '../../../core/errors/known';
import { useReportQuery } from '../../ground/api/api';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { Legend, Sign } from '../../kit/Signs';
import { Refused, Waiting } from '../../kit/States';
import { ReportHead } from './ReportHead';

const BANDS = ['not_due', 'days_1_30', 'days_31_60', 'days_61_90', 'days_over_90'] as const;

/** What clients owe by age, with the retention they hold. */
export function AgeingPage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useReportQuery({ name: 'ageing', asOf: month });
  const { show, code } = useCurrency();
  const keep = useKeepMonth();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the receivables" />;
  const rows = data.rows.slice(0, -1);
  const total = at(data.rows, -1);
  const late = (row: (typeof rows)[number]) => BANDS.slice(1).some((band) => row[band] !== 0);
  return (
    <div className="page">
      <ReportHead title="Ageing of receivables" name="ageing" />
      {rows.length === 0 ? (
        <p>No unpaid invoices and no retention held.</p>
      ) : (
        <div className="scroll" style={{ maxHeight: 'calc(100vh - 178px)' }} tabIndex={0} role="region" aria-label="Ageing">
          <table className="ledger">
            <thead>
              <tr>
                {data.columns.map((column) => (
                  <th key={column.key} className={column.kind === 'amount' ? 'num' : ''}>
                    {column.title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => {
                const application = /^\d+$/.test(String(row.application));
                return (
                  <tr key={`${row.job} ${row.application}`}>
                    <td>{row.client}</td>
                    <td>
                      <Link to={keep(`/jobs/${encodeURIComponent(present(row.job))}`)}>{row.job}</Link>
                    </td>
                    <td>
                      <Link
                        to={keep(
                          `/jobs/${encodeURIComponent(present(row.job))}/billing${application ? `/${row.application}` : ''}`,
                        )}
                      >
                        {row.application}
                      </Link>
                    </td>
                    <td>{displayDate(String(row.dated))}</td>
                    <td>
                      {displayDate(String(row.due_on))} {late(row) && <Sign name="overdue" bare />}
                    </td>
                    {BANDS.map((band) => (
                      <td key={band} className="num">
                        {row[band] === 0 ? (
                          '–'
                        ) : (
                          <Fig
                            value={row[band] as number}
                            of={
                              application
                                ? { figure: 'applicationOpen', job: String(row.job), application: Number(row.application) }
                                : { figure: 'releaseOpen', job: String(row.job), release: String(row.application) }
                            }
                            label="Outstanding"
                          />
                        )}
                      </td>
                    ))}
                    <td className="num">
                      {row.retention_held === 0 ? (
                        '–'
                      ) : (
                        <>
                          <Sign name="held" bare />{' '}
                          <Fig
                            value={row.retention_held as number}
                            of={{ figure: 'retentionHeld', job: String(row.job) }}
                            label="Retention held"
                          />
                        </>
                      )}
                    </td>
                    <td className="num">{show(row.total as number)}</td>
                  </tr>
                );
              })}
            </tbody>
            <tfoot>
              <tr>
                <td colSpan={5}>Total, {code}, tax included</td>
                {[...BANDS, 'retention_held', 'total'].map((key) => (
                  <td key={key} className="num">
                    {show(total[key] as number)}
                  </td>
                ))}
              </tr>
            </tfoot>
          </table>
        </div>
      )}
      <p className="note mt-2 text-[12.5px]">
        <Legend names={['overdue', 'held']} />
      </p>
    </div>
  );
}
