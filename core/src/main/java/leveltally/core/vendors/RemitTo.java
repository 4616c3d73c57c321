package leveltally.core.vendors;

import java.util.List;

/** Where a payment to a vendor goes: the payee's name and the lines of the address, never empty. */
public record RemitTo(String payee, List<String> lines) {
    public RemitTo {
        if (payee.isBlank()) {
            throw new IllegalArgumentException("remit-to: the payee has no name");
        }
        lines = lines.stream()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
    }
}
