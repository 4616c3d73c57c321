package leveltally.core.printing;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.Claim;
import leveltally.core.batches.Stub;
import leveltally.core.ledger.RoutingNumber;
import org.jspecify.annotations.Nullable;

/**
 * Everything that stands on one check and its stubs.
 *
 * @param number null while it has none
 */
public record CheckText(
        Payer payer,
        Claim claim,
        LocalDate checkDate,
        @Nullable Long number,
        Stub stub) {

    /**
     * The company and its account, as the check names them.
     *
     * @param blankStock true where we print number and MICR line; false where the paper has them already
     */
    public record Payer(
            String company,
            List<String> address,
            String bank,
            String currencyWord,
            String validity,
            RoutingNumber routing,
            String accountNumber,
            MicrPattern micr,
            boolean blankStock) {}
}
