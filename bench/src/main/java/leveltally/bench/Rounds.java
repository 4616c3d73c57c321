package leveltally.bench;

import java.util.Arrays;
import java.util.concurrent.Callable;

/** Measures deeds in turn, so that whatever else the machine does falls on both; medians in milliseconds. */
final class Rounds {
    private final int rounds;

    Rounds(int rounds) {
        this.rounds = rounds;
    }

    double[] beside(Callable<Integer> ours, Callable<Integer> bare) throws Exception {
        double[] a = new double[rounds];
        double[] b = new double[rounds];
        for (int i = -2; i < rounds; i++) {
            double first = timed(ours);
            double second = timed(bare);
            if (i >= 0) {
                a[i] = first;
                b[i] = second;
            }
        }
        Arrays.sort(a);
        Arrays.sort(b);
        return new double[] {a[rounds / 2], b[rounds / 2]};
    }

    static double timed(Callable<Integer> deed) throws Exception {
        long start = System.nanoTime();
        deed.call();
        return (System.nanoTime() - start) / 1e6;
    }
}
