package leveltally.core.checks;

import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * The numbers a series can give.
 *
 * @param prefix stands before each, empty for most; two series of one bank account differ in it or lie apart
 * @param last the end of the stock; null where it goes on for ever
 */
public record NumberRange(
        String prefix, long first, @Nullable Long last) {
    /** The longest number that fits the MICR line of every bank. */
    public static final long MOST = 999_999_999;

    private static final int MOST_PREFIX = 8;

    /** @throws Refusal naming the field that cannot be so */
    public NumberRange {
        prefix = prefix.strip();
        if (!prefix.matches("[A-Za-z0-9-]*") || prefix.length() > MOST_PREFIX) {
            throw Refusal.invalidField(
                    "series-prefix", "prefix", "A prefix has at most " + MOST_PREFIX + " letters, digits or hyphens.");
        }
        if (first < 1 || first > MOST) {
            throw Refusal.invalidField(
                    "series-first", "first", "The first number lies between 1 and " + MOST + ", as on the paper.");
        }
        if (last != null && (last < first || last > MOST)) {
            throw Refusal.invalidField(
                    "series-last",
                    "last",
                    "The last number lies between the first and " + MOST + ", or is left empty.");
        }
    }

    /**
     * The bank knows an account's checks by their numbers alone, so no two series may ever give the same.
     *
     * @param name what the other series is called
     * @throws Refusal when both could give one number
     */
    public void mustLieApartFrom(NumberRange other, String name) {
        boolean apart = !prefix.equalsIgnoreCase(other.prefix)
                || other.last != null && first > other.last
                || last != null && last < other.first;
        if (!apart) {
            throw Refusal.invalidField(
                    "series-overlap",
                    "first",
                    "The series " + name + " of this account has the numbers from " + other.first
                            + (other.last == null ? " on" : " to " + other.last)
                            + ". Choose numbers apart from these, or a prefix of its own.");
        }
    }

    /** Whether the stock has this number. */
    public boolean holds(long number) {
        return number >= first && (last == null || number <= last);
    }

    /**
     * @param next the first of {@code count} numbers that are wanted
     * @throws Refusal when the stock ends before
     */
    public void mustHold(long next, int count) {
        if (last != null && next + count - 1 > last) {
            long left = Math.max(0, last - next + 1);
            throw Refusal.conflict(
                    "series-ends",
                    "The series ends with " + last + ": " + (left == 0 ? "none is" : left + " are")
                            + " left, and " + count + (count == 1 ? " is" : " are")
                            + " wanted. Have an administrator add a series.");
        }
    }
}
