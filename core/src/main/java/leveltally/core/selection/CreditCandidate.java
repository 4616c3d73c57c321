package leveltally.core.selection;

import leveltally.core.invoices.OpenCredit;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/** An open credit of a vendor among the candidates. */
public record CreditCandidate(
        OpenCredit credit,
        VendorId vendor,
        long remitTo,
        @Nullable String holdReason,
        @Nullable String reservedBy) {}
