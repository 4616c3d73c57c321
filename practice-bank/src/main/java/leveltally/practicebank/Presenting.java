package leveltally.practicebank;

import java.util.Random;

/** When a check comes in, by a seed of its own: most within four days, some never. */
final class Presenting {
    private static final int LATEST = 4;
    private static final int NEVER_OF_A_HUNDRED = 6;

    private Presenting() {}

    /** @param today counted from the first day; 0 for never */
    static int due(String accountNumber, long number, int today) {
        Random random = new Random(accountNumber.hashCode() * 31L + number * 7919L);
        return random.nextInt(100) < NEVER_OF_A_HUNDRED ? 0 : today + 1 + random.nextInt(LATEST);
    }
}
