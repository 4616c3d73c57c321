package leveltally.core.vendors;

import java.util.Optional;

/**
 * How far a payee can be reached at one of its remit-to addresses.
 *
 * @param address paper can be sent there
 * @param bankDetails its bank account is known
 */
public record Reach(boolean address, boolean bankDetails) {
    /** What a way to pay needs and a payee may lack. */
    public enum Missing {
        ADDRESS,
        BANK_DETAILS
    }

    /** Why the payee cannot be paid this way; empty when it can. */
    public Optional<Missing> missingFor(PaymentMethod method) {
        return switch (method) {
            case CHECK -> unless(address, Missing.ADDRESS);
            case CREDIT_TRANSFER, WIRE -> unless(bankDetails, Missing.BANK_DETAILS);
            case CARD -> Optional.empty();
        };
    }

    private static Optional<Missing> unless(boolean there, Missing missing) {
        return there ? Optional.empty() : Optional.of(missing);
    }
}
