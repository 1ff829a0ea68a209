import type { Edit } from '../api/types';

/** An edit that is not stored by the server yet, as it was sent. */
export interface WaitingEdit {
  /** Of the request: the server makes an edit once for each key. */
  key: string;
  /** The draft's version that the person saw. */
  version: number;
  edit: Edit;
}

type Store = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/**
 * The edits of one person and one draft that wait for the server, kept in the browser so that they
 * outlive a reload. A browser that keeps nothing is no fault: then they live as long as the page.
 */
export class Outbox {
  readonly #store: Store;
  readonly #name: string;

  constructor(store: Store, account: string, draft: number) {
    this.#store = store;
    this.#name = `waiting edits of ${account} in ${draft}`;
  }

  /** The edits that wait, the oldest first. */
  all(): WaitingEdit[] {
    try {
      const kept = JSON.parse(this.#store.getItem(this.#name) ?? '[]') as WaitingEdit[];
      return Array.isArray(kept) ? kept : [];
    } catch {
      return [];
    }
  }

  /** Keeps an edit, at its place if it is there already. */
  put(edit: WaitingEdit) {
    const kept = this.all();
    const at = kept.findIndex((one) => one.key === edit.key);
    if (at < 0) kept.push(edit);
    else kept[at] = edit;
    this.#write(kept);
  }

  /** Forgets an edit that is stored or refused. */
  drop(key: string) {
    this.#write(this.all().filter((one) => one.key !== key));
  }

  #write(kept: WaitingEdit[]) {
    try {
      if (kept.length === 0) this.#store.removeItem(this.#name);
      else this.#store.setItem(this.#name, JSON.stringify(kept));
    } catch {
      // full, or nothing may be kept
    }
  }
}
