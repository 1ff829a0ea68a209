import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import { useUrlState } from '../shell/useUrlState';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';

const PAGE = 100;
const ACTIONS = [
  'sign in',
  'sign in failed',
  'sign out',
  'first admin',
  'account added',
  'account changed',
  'setting changed',
  'approval asked',
  'request withdrawn',
  'publish scheduled',
  'scheduled publish cancelled',
  'scheduled publish failed',
  'published',
  'published over blockers',
  'rollout finished',
  'rollout stopped',
  'gateway added',
  'gateway enrolled',
  'gateway revoked',
  'feed added',
  'feed changed',
  'feed removed',
];

/** The audit trail, for admins: who did what, when and from where. */
export default function AuditPage() {
  const { values, set } = useUrlState('audit', ['q', 'action']);
  const filter = {
    ...(values.q && { text: values.q }),
    ...(values.action && { action: values.action }),
  };
  const pages = useInfiniteQuery({
    queryKey: ['audit', values.q, values.action],
    queryFn: ({ pageParam }) => api.audit(filter, pageParam, PAGE),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last[last.length - 1]?.id),
    placeholderData: keepPreviousData,
    refetchInterval: 10_000,
  });
  const entries = pages.data?.pages.flat() ?? [];
  return (
    <div className="flex min-h-0 flex-1 flex-col p-6">
      <h1 className="mb-3 text-[17px] font-semibold">Audit trail</h1>
      <div className="mb-3 flex items-center gap-3">
        <input
          aria-label="Search the audit trail"
          data-filter
          placeholder="account, subject or detail"
          value={values.q}
          onChange={(e) => set({ q: e.target.value })}
          className="w-[280px] rounded border border-dim bg-sheet px-2 py-1"
        />
        <select
          aria-label="Action"
          value={values.action}
          onChange={(e) => set({ action: e.target.value })}
          className="rounded border border-dim bg-sheet px-2 py-1"
        >
          <option value="">all actions</option>
          {ACTIONS.map((action) => (
            <option key={action}>{action}</option>
          ))}
        </select>
        <a
          href={`/api/audit/export?${new URLSearchParams({ ...filter, limit: '1000' }).toString()}`}
          download="audit.csv"
          className="ml-auto text-accent underline underline-offset-2"
        >
          Export as CSV
        </a>
      </div>
      <Faults error={pages.error} />
      <div className="min-h-0 flex-1 overflow-y-auto border-y border-line">
        <table className="w-full border-collapse">
          <thead className="sticky top-0 bg-paper">
            <tr className="text-left text-[12px] text-dim">
              {['time', 'who', 'address', 'action', 'subject', 'detail'].map((word) => (
                <th key={word} scope="col" className="py-1 pr-4 font-normal">
                  {word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {entries.map((entry) => (
              <tr key={entry.id} className="border-t border-line align-top">
                <td className="py-1 pr-4 whitespace-nowrap text-dim">
                  {new Date(entry.at).toLocaleString(undefined, { hour12: false })}
                </td>
                <td className="py-1 pr-4 break-all">{entry.who}</td>
                <td className="py-1 pr-4 font-mono text-[12px]">{entry.address}</td>
                <td
                  className={`py-1 pr-4 whitespace-nowrap ${
                    /failed|over blockers/.test(entry.action) ? 'font-semibold text-drop' : ''
                  }`}
                >
                  {entry.action}
                </td>
                <td className="py-1 pr-4 break-words">{entry.subject}</td>
                <td className="py-1 break-words">{entry.detail}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {pages.isSuccess && entries.length === 0 && (
          <p className="py-3 text-dim">Nothing fits. Search for less, or choose all actions.</p>
        )}
        {pages.hasNextPage && (
          <Button small className="my-2" onClick={() => void pages.fetchNextPage()}>
            Older entries
          </Button>
        )}
      </div>
    </div>
  );
}
