package leveltally.core.checks;

import org.jspecify.annotations.Nullable;

/**
 * What the bank knows of a check: a file that was made is not yet a file the bank has read.
 *
 * @param serial of the file the issue stands in; 0 while it stands in none
 */
public record BankKnows(Issue issue, long serial) {
    /** Where the issue of a check stands on its way to the bank. */
    public enum Issue {
        /** The bank gets no positive pay files for this account. */
        NOT_ASKED_FOR,
        /** It joins the next file. */
        WAITING,
        /** It stands in a file the bank has not answered. */
        IN_A_FILE,
        /** It stands in a file the bank accepted. */
        ACCEPTED,
        /** It was closed without ever being reported. */
        NEVER_REPORTED;

        /**
         * @param closed it was closed without being reported
         * @param accepted whether the bank accepted the file it stands in; null while it stands in none
         */
        public static Issue of(boolean closed, @Nullable Boolean accepted) {
            if (closed) {
                return NEVER_REPORTED;
            }
            return accepted == null ? WAITING : accepted ? ACCEPTED : IN_A_FILE;
        }

        /** A void goes with its issue, or after the issue's file was accepted; until then it waits. */
        public boolean letsVoidGo() {
            return this != IN_A_FILE;
        }
    }

    /** What the bank knows, and what a void of the check would tell it. */
    public String ofAVoid() {
        return switch (issue) {
            case NOT_ASKED_FOR ->
                "The bank gets no positive pay files for this account, so it hears nothing of either.";
            case WAITING -> "The bank has not heard of the check: issue and void both go into its next file.";
            case IN_A_FILE ->
                "The issue stands in bank file " + serial
                        + ", which the bank has not answered; the void goes into a file"
                        + " once it has. The paper may still be out.";
            case ACCEPTED ->
                "The bank knows the check, it accepted file " + serial + ": the void goes into the next file. The paper"
                        + " may still be out.";
            case NEVER_REPORTED ->
                "The issue was closed and is never reported to the bank; the void goes into its next file.";
        };
    }
}
