"""Ordinal alpha with 1,000 resamples of units, as AlphaBench does it: 20,000 units x 8 raters, five levels, a tenth missing."""

import sys
import time

import numpy as np

LEVELS = 5


def made(units, rng):
    truth = rng.integers(0, LEVELS, (units, 1))
    grades = np.clip(truth + rng.integers(-1, 2, (units, 8)), 0, LEVELS - 1)
    missing = rng.random(grades.shape) < 0.1
    grades[missing] = -1
    return np.stack([(grades == k).sum(1) for k in range(LEVELS)], 1)


def alpha(coincidences):
    n = coincidences.sum(1)
    total = n.sum()
    cumulated = np.cumsum(n)
    between = cumulated[None, :] - cumulated[:, None] + (n[:, None] - n[None, :]) / 2
    distance = np.triu(between**2, 1)
    return 1 - (total - 1) * (coincidences * distance).sum() / (np.outer(n, n) * distance).sum()


def resampled(counts, rng, resamples=1000):
    patterns, times = np.unique(counts, axis=0, return_counts=True)
    graded = patterns.sum(1)
    scale = np.where(graded > 1, 1 / np.maximum(graded - 1, 1), 0)
    products = patterns[:, :, None] * patterns[:, None, :] - np.eye(LEVELS) * patterns[:, :, None]
    products = (products * scale[:, None, None]).reshape(len(patterns), -1)
    drawn = rng.multinomial(counts.shape[0], times / times.sum(), size=resamples)
    sums = (drawn @ products).reshape(resamples, LEVELS, LEVELS)
    return np.quantile([alpha(s) for s in sums], [0.025, 0.975])


def main():
    units = int(sys.argv[1]) if len(sys.argv) > 1 else 20_000
    rng = np.random.default_rng(1)
    counts = made(units, rng)
    seconds = []
    for _ in range(10):
        start = time.perf_counter()
        resampled(counts, rng)
        seconds.append(time.perf_counter() - start)
    print(f"alpha, {units} units: {1000 * np.median(seconds):.0f} ms, median of 10")


main()
