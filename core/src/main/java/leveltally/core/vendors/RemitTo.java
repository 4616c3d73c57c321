package leveltally.core.vendors;

import java.util.List;

/**
 * Where a payment to a vendor goes: the payee's name and the lines of the address, never empty.
 *
 * @param bankKey the keyed hash of the bank details, equal exactly when they are; empty where there are none
 */
public record RemitTo(String payee, List<String> lines, String bankKey) {
    public RemitTo {
        if (payee.isBlank()) {
            throw new IllegalArgumentException("remit-to: the payee has no name");
        }
        lines = lines.stream()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
    }

    /** One without bank details. */
    public RemitTo(String payee, List<String> lines) {
        this(payee, lines, "");
    }
}
