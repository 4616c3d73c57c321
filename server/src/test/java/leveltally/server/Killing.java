package leveltally.server;

import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.LongStream;
import leveltally.core.Refusal;

/** Breaks the connections of the application in the middle of deeds. */
public final class Killing {
    private static final int MOST = 120;

    private final Random random;
    private final int within;
    private int broken;

    public Killing(Random random) {
        this(random, 45);
    }

    /** @param within so many milliseconds after a deed began its connection breaks */
    public Killing(Random random, int within) {
        this.random = random;
        this.within = within;
    }

    /**
     * Whether there is another round: so many at least, and more while too few deeds broke, since a fast machine is done before
     * its connection breaks.
     *
     * @param broken how many broke so far, of each kind that has to
     */
    public static boolean goesOn(int round, int least, long... broken) {
        return round < least || (round < MOST && LongStream.of(broken).anyMatch(one -> one <= 2));
    }

    /** How many deeds broke. */
    public int broken() {
        return broken;
    }

    public void begin() {
        broken = 0;
    }

    /** Does it while its connection is broken at some moment; then it has happened once, or is done again and happens once. */
    public void whole(Callable<?> deed, String happened) throws InterruptedException {
        ExecutorService one = Executors.newSingleThreadExecutor();
        Future<?> doing = one.submit(deed);
        Thread.sleep(random.nextInt(within));
        App.asRoot("KILL CONNECTION USER leveltally_app");
        try {
            doing.get();
        } catch (ExecutionException failed) {
            assertThat(failed.getCause()).isNotInstanceOf(Refusal.class);
            broken++;
        } finally {
            one.shutdown();
        }
        if (retried(happened) == 0) {
            again(deed);
        }
        assertThat(retried(happened)).as(happened).isOne();
    }

    private static void again(Callable<?> deed) {
        for (int i = 0; ; i++) {
            try {
                deed.call();
                return;
            } catch (Refusal refused) {
                throw refused;
            } catch (Exception brokenStill) {
                assertThat(i).as("%s", brokenStill).isLessThan(10);
            }
        }
    }

    /** The pool gives out a connection that broke once at most for each it has. */
    private static long retried(String sql) {
        for (int i = 0; ; i++) {
            try {
                return number(sql);
            } catch (RuntimeException brokenStill) {
                assertThat(i).as("%s", brokenStill).isLessThan(20);
            }
        }
    }
}
