package leveltally.core.batches;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * What somebody decided about one payment of a draft.
 *
 * @param id null until it is kept
 * @param remitTo which of the vendor's addresses it goes to
 * @param apart it was set apart, so nothing joins it by itself
 * @param stubNote what the stub says above its lines
 */
public record DraftClaim(
        @Nullable ClaimId id, VendorId vendor, long remitTo, boolean apart, String stubNote, List<DraftLine> lines) {

    public DraftClaim {
        lines = List.copyOf(lines);
    }

    public List<InvoiceId> invoices() {
        return lines.stream().filter(DraftLine::isInvoice).map(DraftLine::id).toList();
    }

    public List<InvoiceId> credits() {
        return lines.stream()
                .filter(line -> !line.isInvoice())
                .map(DraftLine::id)
                .toList();
    }

    boolean holds(InvoiceId invoice) {
        return lines.stream().anyMatch(line -> line.id().equals(invoice));
    }

    boolean mustStandAlone() {
        return lines.stream().anyMatch(DraftLine::ownCheck);
    }

    DraftClaim with(List<DraftLine> others) {
        return new DraftClaim(id, vendor, remitTo, apart, stubNote, others);
    }

    public DraftClaim each(UnaryOperator<DraftLine> change) {
        return with(lines.stream().map(change).toList());
    }

    DraftClaim without(Set<InvoiceId> gone) {
        return with(lines.stream().filter(line -> !gone.contains(line.id())).toList());
    }

    DraftClaim plus(List<DraftLine> more) {
        List<DraftLine> all = new ArrayList<>(lines);
        all.addAll(more);
        return with(all);
    }

    /** The same, once it is kept under an id. */
    public DraftClaim identified(ClaimId kept) {
        return new DraftClaim(kept, vendor, remitTo, apart, stubNote, lines);
    }

    DraftClaim setApart() {
        return new DraftClaim(id, vendor, remitTo, true, stubNote, lines);
    }
}
