import { useQuery } from '@tanstack/react-query';
import { Lock } from 'lucide-react';
import { Link } from 'react-router';
import { api } from '../api/client';

/** Says which common rulebase something is from, and leads there. */
export function Origin({ name, rule }: { name: string; rule?: string }) {
  const { data } = useQuery({ queryKey: ['rulebases'], queryFn: api.rulebases });
  const id = data?.find((one) => one.name === name)?.id;
  const query = rule ? `?rule=${encodeURIComponent(rule)}` : '';
  return (
    <span className="inline-flex min-w-0 items-center gap-1 text-[12px] text-dim">
      <Lock size={11} aria-hidden className="shrink-0" />
      <span className="shrink-0">from</span>
      {id === undefined ? (
        <span className="truncate" title={name}>
          {name}
        </span>
      ) : (
        <Link
          to={`/rulebases/${id}/rules${query}`}
          title={name}
          className="inline-block min-h-[24px] truncate leading-[24px] text-accent underline underline-offset-2"
        >
          {name}
        </Link>
      )}
    </span>
  );
}
