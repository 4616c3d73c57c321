package leveltally.core.printers;

/**
 * A printer's answer when it was given pages.
 *
 * @param said in its own words, or ours; empty for nothing to add
 * @param job what it calls the job; empty for nothing
 */
public record Handed(Outcome outcome, String said, String job) {
    private static final int LONGEST = 300;

    public Handed {
        said = said.substring(0, Math.min(LONGEST, said.length()));
    }

    public static Handed accepted(String said, String job) {
        return new Handed(Outcome.ACCEPTED, said, job);
    }

    public static Handed refused(String why) {
        return new Handed(Outcome.REFUSED, why, "");
    }

    public static Handed notKnown(String why) {
        return new Handed(Outcome.NOT_KNOWN, why, "");
    }
}
