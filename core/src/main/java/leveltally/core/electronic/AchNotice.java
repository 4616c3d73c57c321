package leveltally.core.electronic;

import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * What a bank says of an entry it was sent; the trace number of the entry says which: the eight digits of the bank it was sent
 * through, then its sequence.
 */
public sealed interface AchNotice {
    String code();

    String trace();

    /** The sequence of the entry it speaks of. */
    default int sequence() {
        return Integer.parseInt(trace().substring(trace().length() - 7));
    }

    /**
     * The money comes back.
     *
     * @param code such as {@code R03}, see {@link AchCodes}
     * @param payee as the entry named it
     * @param said what the payee's bank added; mostly empty
     */
    record Returned(String code, String trace, Money amount, String payee, String said) implements AchNotice {}

    /**
     * The money went, but something of the payee's account is otherwise.
     *
     * @param code such as {@code C02}
     * @param routing what is right, as the two others; null where that is not said to be wrong
     */
    record Changed(
            String code,
            String trace,
            @Nullable String routing,
            @Nullable String account,
            @Nullable Boolean savings,
            String corrected)
            implements AchNotice {}
}
