package leveltally.core.exchange;

import java.time.Duration;

/** How often something that fails is tried again: soon at first, then each hour, for about two days. */
public final class Tries {
    public static final int MOST = 50;
    private static final Duration FIRST = Duration.ofSeconds(15);
    private static final Duration LONGEST = Duration.ofHours(1);
    private static final int DOUBLED = 8;

    private Tries() {}

    /** How long to wait after so many, at least one. */
    public static Duration after(int tries) {
        Duration wait = FIRST.multipliedBy(1L << Math.min(Math.max(tries, 1) - 1, DOUBLED));
        return wait.compareTo(LONGEST) < 0 ? wait : LONGEST;
    }
}
