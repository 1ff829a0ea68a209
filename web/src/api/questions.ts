/** A question that the server has not answered yet. */
export interface Question {
  id: string;
  /** The answer, as a noun: "Repairs". */
  what: string;
  cancel(): void;
}

let open: readonly Question[] = [];
const listeners = new Set<() => void>();

function change(next: readonly Question[]): void {
  open = next;
  listeners.forEach((listener) => listener());
}

/** All open questions, oldest first; the same array until one is asked or answered. */
export const openQuestions = (): readonly Question[] => open;

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Keeps a question among the open ones until `asked` settles. */
export async function whileOpen<T>(question: Question, asked: Promise<T>): Promise<T> {
  change([...open, question]);
  try {
    return await asked;
  } finally {
    change(open.filter((other) => other !== question));
  }
}
