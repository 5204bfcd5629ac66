import type { StrikeAnswer } from '@plate-fold/core/strike';
import type { Result } from '@plate-fold/core/units';
import { keptAnswers } from './kept-answers';
import { type PoolTask, strikeInPool, WORKER_URL } from './strike-pool';

/** So many answers, some tens of kilobytes each. */
const kept = keptAnswers<StrikeAnswer>('strikes', WORKER_URL, 400);

/** Strikes a plate, or recalls what was found before: as `strikeInPool`. */
export function strikeOrRecall(
  task: PoolTask,
  onAnswer: (answer: Result<StrikeAnswer>) => void,
  signal?: AbortSignal,
): void {
  void kept.recalled(task.key).then(known => {
    if (signal?.aborted) return;
    if (known) {
      onAnswer({ ok: true, value: known });
      return;
    }
    strikeInPool(
      task,
      answer => {
        onAnswer(answer);
        if (answer.ok) void kept.keep(task.key, answer.value);
      },
      signal,
    );
  });
}
