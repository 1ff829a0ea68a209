import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { api } from '../api/client';
import type { HandlingKind, Notice, RatePlan, Rule } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Capacity } from './Capacity';
import { NoticeDialog } from './NoticeDialog';
import { COUNTED, RatePlanDialog } from './RatePlanDialog';
import { RemovalDialog } from './RemovalDialog';
import { Users } from './Users';

/** Rate plans with what their floors add up to, and notices. */
export function HandlingLists({
  handle,
  fits,
  users,
  mayEdit,
  onRule,
}: {
  handle: DraftHandle;
  /** Whether some texts fit what is searched for. */
  fits(...texts: string[]): boolean;
  users: Map<string, Rule[]>;
  mayEdit: boolean;
  onRule(id: string): void;
}) {
  const draft = handle.draft!;
  const [plan, setPlan] = useState<RatePlan | 'new' | null>(null);
  const [notice, setNotice] = useState<Notice | 'new' | null>(null);
  const [leaving, setLeaving] = useState<{ kind: HandlingKind; name: string } | null>(null);
  const { data: sum } = useQuery({
    queryKey: ['floors', draft.id, draft.version],
    queryFn: ({ signal }) => api.floors(draft.id, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const rulesOf = (kind: HandlingKind, name: string) =>
    users.get(`${kind}:${name.toLowerCase()}`) ?? [];
  const remove = (kind: HandlingKind, name: string) =>
    rulesOf(kind, name).length
      ? setLeaving({ kind, name })
      : void handle.edit({ kind: 'deleteObject', objectKind: kind, name });
  const rest = (kind: HandlingKind, name: string, edit: () => void) => (
    <>
      <Users rules={rulesOf(kind, name)} onRule={onRule} />
      {mayEdit && (
        <span className="flex w-[110px] shrink-0 justify-end gap-1">
          <Button small onClick={edit}>
            Edit
          </Button>
          <Button small aria-label={`Delete ${name}`} onClick={() => remove(kind, name)}>
            Delete
          </Button>
        </span>
      )}
    </>
  );
  const plans = draft.ratePlans.filter((p) =>
    fits(p.name, p.ceiling ?? '', p.floor ?? '', p.note ?? ''),
  );
  const notices = draft.notices.filter((n) => fits(n.name, n.heading, n.text));
  return (
    <>
      <List
        title="Rate plans"
        one="rate plan"
        count={plans.length}
        searched={plans.length < draft.ratePlans.length}
        mayEdit={mayEdit}
        onNew={() => setPlan('new')}
        beside={sum && <Capacity sum={sum} handle={handle} mayEdit={mayEdit} />}
      >
        {plans.map((p) => {
          const kept = sum?.plans.find((one) => one.plan === p.name);
          return (
            <li key={p.name} className="flex items-baseline gap-3 py-1">
              <span className="w-[190px] shrink-0 truncate font-semibold" title={p.name}>
                {p.name}
              </span>
              <span className="min-w-0 flex-1">
                {[p.ceiling && `at most ${p.ceiling}`, p.floor && `${p.floor} kept`]
                  .filter(Boolean)
                  .join(', ')}{' '}
                <span className="text-dim">
                  {COUNTED[p.counted]}
                  {p.mostAtOnce && `, ${p.mostAtOnce} at once`}
                </span>
              </span>
              {kept && (
                <span className="shrink-0 text-[12px] text-dim">
                  {kept.times} × {p.floor} = {kept.total}
                </span>
              )}
              {rest('rate plan', p.name, () => setPlan(p))}
            </li>
          );
        })}
      </List>
      <List
        title="Notices"
        one="notice"
        count={notices.length}
        searched={notices.length < draft.notices.length}
        mayEdit={mayEdit}
        onNew={() => setNotice('new')}
      >
        {notices.map((n) => (
          <li key={n.name} className="flex items-baseline gap-3 py-1">
            <span className="w-[190px] shrink-0 truncate font-semibold" title={n.name}>
              {n.name}
            </span>
            <span className="min-w-0 flex-1 truncate" title={n.text}>
              {n.heading} <span className="text-dim">{n.text}</span>
            </span>
            {rest('notice', n.name, () => setNotice(n))}
          </li>
        ))}
      </List>
      {plan && (
        <RatePlanDialog
          plan={plan === 'new' ? null : plan}
          handle={handle}
          onClose={() => setPlan(null)}
        />
      )}
      {notice && (
        <NoticeDialog
          notice={notice === 'new' ? null : notice}
          handle={handle}
          onClose={() => setNotice(null)}
        />
      )}
      {leaving && <RemovalDialog {...leaving} draft={draft} onClose={() => setLeaving(null)} />}
    </>
  );
}

function List({
  title,
  one,
  count,
  searched,
  mayEdit,
  onNew,
  beside,
  children,
}: {
  title: string;
  one: HandlingKind;
  count: number;
  /** Whether there are more, which do not fit what is searched for. */
  searched: boolean;
  mayEdit: boolean;
  onNew(): void;
  beside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section className="mb-6" aria-label={title}>
      <div className="mb-1 flex items-baseline gap-3">
        <h2 className="font-semibold">{title}</h2>
        <span className="text-[12px] text-dim">{count}</span>
        {beside}
        {mayEdit && (
          <Button small className="ml-auto" onClick={onNew}>
            New {one}
          </Button>
        )}
      </div>
      {count === 0 && (
        <p className="border-y border-line py-2 text-dim">
          {searched ? 'Nothing fits the search.' : `There are no ${title.toLowerCase()} yet.`}
        </p>
      )}
      <ul className="divide-y divide-line border-y border-line empty:hidden">{children}</ul>
    </section>
  );
}
