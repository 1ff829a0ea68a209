import { expect, test, vi } from 'vitest';
import { openQuestions, subscribe, whileOpen, type Question } from './questions';

const question = (id: string): Question => ({ id, what: 'Repairs', cancel: () => undefined });

test('a question is open until it is answered or fails', async () => {
  const changed = vi.fn();
  const leave = subscribe(changed);
  let answer: (value: number) => void = () => undefined;
  let fail: (reason: Error) => void = () => undefined;
  const first = whileOpen(question('a'), new Promise<number>((resolve) => (answer = resolve)));
  const second = whileOpen(question('b'), new Promise<number>((_, reject) => (fail = reject)));
  expect(openQuestions().map(({ id }) => id)).toEqual(['a', 'b']);
  answer(7);
  expect(await first).toBe(7);
  expect(openQuestions().map(({ id }) => id)).toEqual(['b']);
  fail(new Error('gone'));
  await expect(second).rejects.toThrow('gone');
  expect(openQuestions()).toEqual([]);
  expect(changed).toHaveBeenCalledTimes(4);
  leave();
});
