package org.mossbank.core.comparison;

/** Numbers that occur, counted anew from 0 in their own order. */
final class Numbers {
    final int[] of;
    final int count;

    Numbers(int[] values, int most) {
        of = new int[most];
        for (int value : values) {
            of[value] = 1;
        }
        int n = 0;
        for (int i = 0; i < most; i++) {
            of[i] = of[i] > 0 ? n++ : -1;
        }
        count = n;
    }
}
