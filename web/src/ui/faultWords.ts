import { Problem } from '../api/client';

/** The first fault of a line that was refused, with its place, in one sentence. */
export function faultWords(error: Error): string {
  const fault = error instanceof Problem ? error.body.faults?.[0] : undefined;
  return fault
    ? `At ${fault.path}: expected ${fault.expected}, found ${fault.found ? `"${fault.found}"` : 'nothing'}.`
    : error.message;
}
