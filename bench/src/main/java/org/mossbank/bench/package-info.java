/** Benches: how fast the core computes, and how the server bears fifty raters. Figures stand in docs/benchmarks.md. */
@NullMarked
package org.mossbank.bench;

import org.jspecify.annotations.NullMarked;
