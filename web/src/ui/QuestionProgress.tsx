import { useQuery } from '@tanstack/react-query';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { api } from '../api/client';
import { openQuestions, subscribe, type Question } from '../api/questions';
import type { QuestionProgress as Progress } from '../api/types';
import { Button } from './Button';

const QUIET_MS = 1000;

/** How far a question is, in words. */
export function progressWords({ running, seconds, deadline, waiting }: Progress): string {
  const time = `${seconds} of at most ${deadline} s`;
  if (running) return time;
  return `${time}, ${waiting === 1 ? '1 question waits' : `${waiting} questions wait`} for a free thread`;
}

/** An open question, and its progress once it takes over a second. */
function useProgress(
  which: 'oldest' | 'newest',
): { question: Question; progress: Progress } | null {
  const question = useSyncExternalStore(subscribe, openQuestions).at(which === 'oldest' ? 0 : -1);
  const [late, setLate] = useState<Question>();
  useEffect(() => {
    const timer = setTimeout(() => setLate(question), QUIET_MS);
    return () => clearTimeout(timer);
  }, [question]);
  const long = question !== undefined && late === question;
  const { data: progress } = useQuery({
    queryKey: ['question', question?.id],
    queryFn: () => api.questionProgress(question!.id),
    enabled: long,
    refetchInterval: 1000,
    retry: false,
    gcTime: 0,
  });
  return long && progress ? { question, progress } : null;
}

/** The question that is open for longest: what it is, how far it is, and a way to cancel it. */
export function QuestionProgress() {
  const found = useProgress('oldest');
  return (
    found && (
      <span data-question className="flex shrink-0 items-center gap-2">
        <span role="status">
          {found.question.what}: {progressWords(found.progress)}
        </span>
        <Button small onClick={found.question.cancel}>
          Cancel
        </Button>
      </span>
    )
  );
}

/** In the place of an answer that is being worked out; whoever leaves it cancels the question. */
export function Working({ on }: { on: string }) {
  const found = useProgress('newest');
  return (
    <p role="status">
      {on}: working… {found && progressWords(found.progress)}
    </p>
  );
}
