"""Adjusted means under 2,000 resamples of prompts and raters, as StandingsBench does it: 6 candidates x 8 raters, a tenth missing."""

import sys
import time

import numpy as np

CANDIDATES, RATERS, RESAMPLES = 6, 8, 2000


def replicate(y, there, prompt_weight, rater_weight):
    """Least squares with prompts swept out; y and there are candidates x prompts x raters."""
    w = there * rater_weight
    by_candidate = w.sum(2)
    by_rater = w.sum(0)
    v = np.concatenate([by_candidate, by_rater.T])
    total = by_rater.sum(1)
    used = (total > 0) & (prompt_weight > 0)
    v, total, p = v[:, used], total[used], prompt_weight[used]
    cross = np.einsum("cpr,p->cr", w[:, used], p)
    matrix = np.zeros((CANDIDATES + RATERS, CANDIDATES + RATERS))
    matrix[:CANDIDATES, CANDIDATES:] = cross
    matrix[CANDIDATES:, :CANDIDATES] = cross.T
    matrix[np.diag_indices_from(matrix)] += v @ p
    matrix -= (v * (p / total)) @ v.T
    wy = w * y
    sums = np.concatenate([wy.sum(2)[:, used] @ p, p @ wy.sum(0)[used]])
    sums -= v @ (p / total * wy.sum((0, 2))[used])
    return np.linalg.lstsq(matrix, sums, rcond=None)[0][:CANDIDATES]


def main():
    prompts = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    rng = np.random.default_rng(1)
    y = 100 * rng.random((CANDIDATES, prompts, RATERS))
    there = (rng.random(y.shape) >= 0.1).astype(float)
    kinds = np.arange(prompts) % 4
    seconds = []
    for _ in range(3):
        start = time.perf_counter()
        for _ in range(RESAMPLES):
            weight = np.zeros(prompts)
            for kind in range(4):
                members = np.flatnonzero(kinds == kind)
                n = len(members)
                weight[members] = rng.multinomial(n - 1, np.full(n, 1 / n)) * n / (n - 1)
            raters = rng.multinomial(RATERS - 1, np.full(RATERS, 1 / RATERS)) * RATERS / (RATERS - 1)
            replicate(y, there, weight, raters)
        seconds.append(time.perf_counter() - start)
    print(f"standings, {prompts} prompts: {1000 * np.median(seconds):.0f} ms, median of 3")


main()
