package leveltally.core.exchange;

import java.util.Arrays;
import java.util.Optional;

/** Files of banks that a standard describes, and no layout of ours. */
public enum StandardFile {
    STATEMENT("camt.053"),
    STATUS_REPORT("pain.002"),
    ACH_NOTICES("ACH returns and changes");

    private final String words;

    StandardFile(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The one that is called so; empty for the name of a layout. */
    public static Optional<StandardFile> named(String words) {
        return Arrays.stream(values()).filter(one -> one.words.equals(words)).findFirst();
    }

    /** True where it speaks of payments we made, not of what moved. */
    public boolean isOfPayments() {
        return this != STATEMENT;
    }
}
