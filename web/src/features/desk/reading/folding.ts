/** Folds that open or close with each frame: to lay all of them out at once takes longer than a key may. */
const A_FRAME = 10;

let coming = 0;

/**
 * Closes all sections and blocks of some answers, or opens them if none is open: those of the first answer at once as far as a
 * frame allows, the others with the frames after it.
 *
 * @param answers where the folds stand, the one that is being read first
 */
export function foldAll(answers: HTMLElement[]): void {
  cancelAnimationFrame(coming);
  const folds = answers.flatMap((answer) => [...answer.querySelectorAll<HTMLDetailsElement>("details.fold")]);
  const open = !folds.some((fold) => fold.open);
  const next = (from: number) => {
    folds.slice(from, from + A_FRAME).forEach((fold) => {
      fold.open = open;
    });
    if (from + A_FRAME < folds.length) {
      coming = requestAnimationFrame(() => next(from + A_FRAME));
    }
  };
  next(0);
}
