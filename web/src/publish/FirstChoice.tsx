import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, FirstGateways } from '../api/types';

const REST_AFTER = 30; // minutes

/** The choice of gateways that follow a revision before the others. */
export function FirstChoice({
  draft,
  value,
  onChange,
}: {
  draft: Draft;
  value: FirstGateways | undefined;
  onChange(value: FirstGateways | undefined): void;
}) {
  const { data } = useQuery({
    queryKey: ['gateways', draft.id, draft.revision],
    queryFn: () => api.gateways(draft.id),
  });
  const gateways = (data ?? []).filter((one) => one.state !== 'revoked');
  if (gateways.length < 2 || draft.kind === 'common') return null;
  const chosen = value?.gateways ?? [];
  const choose = (id: number, on: boolean) =>
    onChange({
      gateways: on ? [...chosen, id] : chosen.filter((one) => one !== id),
      restAfterMinutes: value?.restAfterMinutes ?? REST_AFTER,
    });
  return (
    <fieldset className="mb-3 text-[12px]">
      <legend className="font-semibold">Gateways</legend>
      <label className="flex cursor-pointer items-center gap-2">
        <input type="radio" checked={!value} onChange={() => onChange(undefined)} />
        All {gateways.length} at once
      </label>
      <label className="flex cursor-pointer items-center gap-2">
        <input
          type="radio"
          checked={value !== undefined}
          onChange={() => onChange({ gateways: [], restAfterMinutes: REST_AFTER })}
        />
        Some first
      </label>
      {value && (
        <div className="mt-1 pl-5">
          <ul aria-label="First gateways" className="max-h-[150px] overflow-y-auto">
            {gateways.map((one) => (
              <li key={one.id}>
                <label className="flex cursor-pointer items-center gap-2">
                  <input
                    type="checkbox"
                    checked={chosen.includes(one.id)}
                    onChange={(e) => choose(one.id, e.target.checked)}
                  />
                  <span className="truncate">{one.name}</span>
                </label>
              </li>
            ))}
          </ul>
          <label className="mt-1 flex items-center gap-2 text-dim">
            The others after
            <input
              type="number"
              min={1}
              max={10080}
              required
              aria-label="Minutes until the other gateways follow"
              value={value.restAfterMinutes}
              onChange={(e) => onChange({ ...value, restAfterMinutes: Number(e.target.value) })}
              className="w-[64px] rounded border border-line bg-sheet px-1"
            />
            minutes
          </label>
          <p className="mt-1 text-dim">
            They follow if the first ones have it in force by then, and none of them refused it.
          </p>
        </div>
      )}
    </fieldset>
  );
}

/** Whether a choice can be published: at least one gateway goes first. */
export const isWhole = (value: FirstGateways | undefined) =>
  !value || (value.gateways.length > 0 && value.restAfterMinutes >= 1);
