import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { api, Problem, Unreachable } from '../api/client';
import { hasEnded } from '../api/sessionEnd';
import type { Change, Draft, Edit } from '../api/types';
import { fetchNewest } from './fetchNewest';
import { applyEdit } from './applyEdit';
import { isSet, mayRename } from './checkSet';
import { Outbox, type WaitingEdit } from './outbox';
import { useSession } from '../shell/session';

/** An edit, or how it follows from the draft as it is when its turn comes. */
export type EditOf = Edit | ((draft: Draft) => Edit);

/** An edit that conflicts with a change by another person. */
export interface Conflict {
  problem: Problem;
  edit: Edit;
}

export interface DraftHandle {
  draft: Draft | undefined;
  /** The draft as the last change left it, which the next rendering will show. */
  latest(): Draft;
  error: Error | null;
  people: string[];
  /** How many edits are not stored yet. */
  unsaved: number;
  /** How many of them wait for a server that does not answer. */
  waiting: number;
  conflict: Conflict | null;
  settleConflict(mine: boolean): void;
  /**
   * Sends an edit. `seen` is the version that the person saw when starting it. Resolves to null
   * when it is stored; to the problem when the server refuses it.
   */
  edit(edit: EditOf, seen?: number): Promise<Problem | null>;
  /** Shows an edit before it is stored; whoever does so sends it too. */
  preview(edit: Edit): void;
  /** Fetches the draft as it is stored. */
  refresh(): void;
  undo(): Promise<Problem | null>;
  redo(): Promise<Problem | null>;
  /** The last change that arrived, whoever made it. */
  lastChange: Change | null;
}

const RETRY_MS = 1500;
export const draftKey = (id: number) => ['draft', id] as const;

/** The draft after a change, or nothing if changes in between are missing. */
export function follow(draft: Draft, change: Change): Draft | undefined {
  if (change.version <= draft.version) {
    return draft;
  }
  // Without standings it is the answer to a request that was sent twice.
  if (change.version > draft.version + 1 || !change.standings) {
    return undefined;
  }
  // The server renames what sets of connections name; it knows how they read.
  if (mayRename(change.edit) && draft.checks.some(isSet)) {
    return undefined;
  }
  const next = applyEdit(draft, change.edit);
  const standings = { ...draft.standings, ...change.standings };
  const inForce = change.kind === 'undo' ? -1 : 1;
  return {
    ...next,
    version: change.version,
    changes: draft.changes + inForce,
    standings,
    analysisMillis: change.analysisMillis ?? draft.analysisMillis,
  };
}

/** Whether the same request can succeed later: the server is away, starting or too busy. */
const isTemporary = (e: unknown) =>
  e instanceof Unreachable || (e instanceof Problem && [429, 503].includes(e.body.status));

/** The live draft of a rulebase: fetched once, then kept up to date by the server's events. */
export function useDraft(id: number): DraftHandle {
  const cache = useQueryClient();
  const query = useQuery({
    queryKey: draftKey(id),
    queryFn: () =>
      fetchNewest(
        () => api.draft(id),
        () => cache.getQueryData<Draft>(draftKey(id)),
      ),
  });
  const [people, setPeople] = useState<string[]>([]);
  const [unsaved, setUnsaved] = useState(0);
  const [waiting, setWaiting] = useState(0);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [lastChange, setLastChange] = useState<Change | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const { person } = useSession();
  const outbox = useMemo(() => new Outbox(localStorage, person.name, id), [person.name, id]);

  const take = useCallback(
    (change: Change) => {
      const known = cache.getQueryData<Draft>(draftKey(id));
      const next = known && follow(known, change);
      if (next) {
        cache.setQueryData(draftKey(id), next);
        setLastChange(change);
      } else {
        void cache.invalidateQueries({ queryKey: draftKey(id) });
      }
    },
    [cache, id],
  );

  useEffect(() => {
    let events: EventSource;
    let lost = false;
    let again: ReturnType<typeof setTimeout>;
    const open = () => {
      events = new EventSource(api.eventsUrl(id));
      listen();
    };
    const reopen = () => {
      if (hasEnded()) again = setTimeout(reopen, RETRY_MS);
      else open();
    };
    const listen = () => {
      events.addEventListener('change', (e) => take(JSON.parse(e.data as string) as Change));
      events.addEventListener('published', () => {
        void cache.invalidateQueries({ queryKey: draftKey(id) });
        void cache.invalidateQueries({ queryKey: ['revisions', id] });
      });
      events.addEventListener('presence', (e) =>
        setPeople((JSON.parse(e.data as string) as { people: string[] }).people),
      );
      events.onerror = () => {
        lost = true;
        // A browser tries again by itself only after a broken connection, not after a refusal.
        if (events.readyState === EventSource.CLOSED) again = setTimeout(reopen, RETRY_MS);
      };
      events.onopen = () => {
        if (lost) {
          lost = false;
          void cache.invalidateQueries({ queryKey: draftKey(id) });
        }
      };
    };
    open();
    return () => {
      clearTimeout(again);
      events.close();
    };
  }, [cache, id, take]);

  /** Requests go one after the other; one that the server cannot take now waits and is repeated. */
  const send = useCallback(
    (
      request: (key: string) => Promise<Change>,
      key: string = crypto.randomUUID(),
    ): Promise<Problem | null> => {
      const run = async (): Promise<Problem | null> => {
        let counted = false;
        for (;;) {
          try {
            take(await request(key));
            if (counted) setWaiting((n) => n - 1);
            return null;
          } catch (e) {
            if (isTemporary(e)) {
              if (!counted) setWaiting((n) => n + 1);
              counted = true;
              await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
              continue;
            }
            if (counted) setWaiting((n) => n - 1);
            if (e instanceof Problem) return e;
            throw e;
          }
        }
      };
      setUnsaved((n) => n + 1);
      const result = queue.current.then(run).finally(() => setUnsaved((n) => n - 1));
      queue.current = result.catch(() => undefined);
      return result;
    },
    [take],
  );

  // What waits is kept in the browser; undo and redo are not, so the browser asks first.
  useEffect(() => {
    if (unsaved <= outbox.all().length) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unsaved, outbox]);

  const latest = useCallback(() => cache.getQueryData<Draft>(draftKey(id))!, [cache, id]);

  const edit = useCallback(
    async (change: EditOf, seen?: number) => {
      let sent: Edit | null = null;
      const key = crypto.randomUUID();
      const keep = (edit: Edit, version: number) => outbox.put({ key, version, edit });
      const now = latest();
      keep(typeof change === 'function' ? change(now) : change, seen ?? now.version);
      const problem = await send(() => {
        sent ??= typeof change === 'function' ? change(latest()) : change;
        const version = seen ?? latest().version;
        keep(sent, version);
        return api.edit(id, version, sent, key);
      }, key).finally(() => outbox.drop(key));
      if (problem?.body.conflict) {
        setConflict({ problem, edit: sent! });
      }
      return problem;
    },
    [id, send, latest, outbox],
  );

  // What an earlier page could not send is sent first, once the draft is there.
  const known = query.data !== undefined;
  const resent = useRef<number | null>(null); // the draft that it was done for
  useEffect(() => {
    if (!known || resent.current === id) return;
    resent.current = id;
    const resend = async ({ key, version, edit: waited }: WaitingEdit) => {
      const problem = await send(() => api.edit(id, version, waited, key), key);
      outbox.drop(key);
      if (problem?.body.conflict) setConflict({ problem, edit: waited });
    };
    queueMicrotask(() => outbox.all().forEach((one) => void resend(one)));
  }, [id, known, outbox, send]);

  const settleConflict = useCallback(
    (mine: boolean) => {
      if (mine && conflict) {
        void edit(conflict.edit);
      }
      setConflict(null);
    },
    [conflict, edit],
  );

  const preview = useCallback(
    (change: Edit) => cache.setQueryData(draftKey(id), applyEdit(latest(), change)),
    [cache, id, latest],
  );
  const refresh = useCallback(
    () => void cache.invalidateQueries({ queryKey: draftKey(id) }),
    [cache, id],
  );

  const undo = useCallback(() => send((key) => api.undo(id, key)), [id, send]);
  const redo = useCallback(() => send((key) => api.redo(id, key)), [id, send]);

  return useMemo(
    () => ({
      draft: query.data,
      latest,
      error: query.error,
      people,
      unsaved,
      waiting,
      conflict,
      settleConflict,
      edit,
      preview,
      refresh,
      undo,
      redo,
      lastChange,
    }),
    [
      query.data,
      latest,
      query.error,
      people,
      unsaved,
      waiting,
      conflict,
      settleConflict,
      edit,
      preview,
      refresh,
      undo,
      redo,
      lastChange,
    ],
  );
}
