package leveltally.core.paper;

import leveltally.core.ledger.RoutingNumber;

/** The stock of a series as the printer needs it. */
public sealed interface Paper {
    /** Number and MICR line are on it already. */
    record Numbered() implements Paper {}

    /** We print both. */
    record Blank(MicrPattern pattern, RoutingNumber routing, String accountNumber) implements Paper {
        MicrLine line(long number) {
            return MicrLine.of(pattern, routing, accountNumber, number);
        }
    }
}
