package leveltally.core.batches;

import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * What somebody decided about one thing in a draft; its amounts follow from it.
 *
 * @param typed the cash typed for an invoice; null pays all of it
 * @param byHand it was added or changed by hand, so gathering again leaves it
 * @param hidden the stub does not list it by itself
 * @param ownCheck it must be paid by itself
 */
public record DraftLine(
        ClaimLine.Kind kind, InvoiceId id, @Nullable Money typed, boolean byHand, boolean hidden, boolean ownCheck) {

    public static DraftLine invoice(InvoiceId id, boolean byHand, boolean ownCheck) {
        return new DraftLine(ClaimLine.Kind.INVOICE, id, null, byHand, false, ownCheck);
    }

    public static DraftLine credit(InvoiceId id) {
        return new DraftLine(ClaimLine.Kind.CREDIT, id, null, false, false, false);
    }

    boolean isInvoice() {
        return kind == ClaimLine.Kind.INVOICE;
    }

    DraftLine paying(@Nullable Money cash) {
        return new DraftLine(kind, id, cash, true, hidden, ownCheck);
    }

    DraftLine shown(boolean onStub) {
        return new DraftLine(kind, id, typed, byHand, !onStub, ownCheck);
    }

    DraftLine alone() {
        return new DraftLine(kind, id, typed, byHand, hidden, true);
    }
}
