import { expect, test } from 'vitest';
import { fetchNewest } from './fetchNewest';

test('an answer that a change has overtaken is fetched again', async () => {
  let known = { version: 2 };
  const answers = [{ version: 2 }, { version: 3 }];
  const fetched = await fetchNewest(
    () => {
      known = { version: 3 }; // the change arrives while the fetch is under way
      return Promise.resolve(answers.shift()!);
    },
    () => known,
  );
  expect(fetched.version).toBe(3);
  expect(answers).toEqual([]);
});

test('the first answer is taken if it is as new, or if nothing is known', async () => {
  expect(
    await fetchNewest(
      () => Promise.resolve({ version: 1 }),
      () => undefined,
    ),
  ).toEqual({
    version: 1,
  });
  expect(
    await fetchNewest(
      () => Promise.resolve({ version: 4 }),
      () => ({ version: 4 }),
    ),
  ).toEqual({
    version: 4,
  });
});
