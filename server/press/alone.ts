/** One task of the press in a process of its own, which ends with it. */
import type { Answer, PressTask } from './press';
import run from './worker';

process.once('message', (task: PressTask) => {
  const answer = (given: Answer) => process.send!(given, () => process.exit(0));
  run(task).then(
    (result) => answer({ result }),
    (problem: unknown) => answer({ failed: problem instanceof Error ? problem.message : String(problem) }),
  );
});
