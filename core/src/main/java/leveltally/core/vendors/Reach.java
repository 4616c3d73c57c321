package leveltally.core.vendors;

import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * How far a payee can be reached at one of its remit-to addresses.
 *
 * @param address paper can be sent there
 * @param account which kind of bank account is known of it; null for none
 * @param confirmed two people agreed on it; what is only proposed reaches nobody
 */
public record Reach(boolean address, BankDetails.@Nullable Kind account, boolean confirmed) {
    /** What a way to pay needs and a payee may lack. */
    public enum Missing {
        ADDRESS,
        BANK_DETAILS,
        CONFIRMATION,
        ROUTING_NUMBER
    }

    /** Why the payee cannot be paid this way; empty when it can. */
    public Optional<Missing> missingFor(PaymentMethod method) {
        return switch (method) {
            case CHECK -> address ? Optional.empty() : Optional.of(Missing.ADDRESS);
            case ACH -> account == BankDetails.Kind.IBAN ? Optional.of(Missing.ROUTING_NUMBER) : missingOfAnyAccount();
            case CREDIT_TRANSFER, WIRE -> missingOfAnyAccount();
            case CARD -> Optional.empty();
        };
    }

    private Optional<Missing> missingOfAnyAccount() {
        return account == null
                ? Optional.of(Missing.BANK_DETAILS)
                : confirmed ? Optional.empty() : Optional.of(Missing.CONFIRMATION);
    }
}
