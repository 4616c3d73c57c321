package leveltally.core.selection;

import leveltally.core.invoices.OpenInvoice;
import org.jspecify.annotations.Nullable;

/**
 * An open invoice that passes the dates and ranges, or was added by hand, with all that decides whether it is taken.
 *
 * @param ownCheck it must be paid by itself
 * @param holdReason why the invoice is held; null when it is not
 * @param reservedBy the name of the live batch it stands in; null when in none
 */
public record Candidate(
        OpenInvoice invoice,
        Payee payee,
        boolean ownCheck,
        @Nullable String holdReason,
        @Nullable String reservedBy) {}
