package leveltally.core.selection;

import leveltally.core.invoices.OpenInvoice;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * An open invoice that passes the dates, with all that decides whether it can be taken.
 *
 * @param remitTo identifies the vendor's address; invoices of one vendor and remit-to share a claim
 * @param holdReason why the invoice is held; null when it is not
 * @param vendorHoldReason why its vendor is held; null when it is not
 * @param reservedBy the name of the live batch it stands in; null when in none
 */
public record Candidate(
        OpenInvoice invoice,
        VendorId vendor,
        String vendorName,
        long remitTo,
        PaymentMethod method,
        @Nullable String holdReason,
        @Nullable String vendorHoldReason,
        @Nullable String reservedBy) {}
