package leveltally.server.vendors;

import java.util.Currency;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * A vendor as other capabilities see it.
 *
 * @param oneTime paid once and never again, as far as anybody knows
 */
public record Vendor(
        VendorId id,
        String number,
        String name,
        String group,
        int priority,
        PaymentMethod method,
        Currency currency,
        Terms terms,
        @Nullable String holdReason,
        boolean oneTime) {}
