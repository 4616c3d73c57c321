package leveltally.core.batches;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Sha256;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Selection;

/**
 * What running the criteria of a draft again would change. What was decided by hand stays: invoices added, changed or
 * taken out by hand are neither removed nor taken in again.
 *
 * @param added invoices the criteria take now and the draft has not
 * @param removed invoices of the draft the criteria do not take any more, with the reason
 */
public record Gathering(List<Selection.Row> added, List<Removed> removed) {

    /** One invoice to be removed, and why in words. */
    public record Removed(InvoiceId invoice, String why) {}

    /** @param now the criteria run again, with the draft's own reservations free and its marks by hand */
    public static Gathering of(Draft draft, Selection now) {
        Set<InvoiceId> here = new HashSet<>();
        Set<InvoiceId> byHand = new HashSet<>();
        for (DraftClaim claim : draft.claims()) {
            for (DraftLine line : claim.lines()) {
                if (line.isInvoice()) {
                    here.add(line.id());
                    if (line.byHand() || line.ownCheck()) {
                        byHand.add(line.id());
                    }
                }
            }
        }
        List<Selection.Row> added = new ArrayList<>();
        List<Removed> removed = new ArrayList<>();
        Set<InvoiceId> seen = new HashSet<>();
        for (Selection.Row row : now.rows()) {
            InvoiceId id = row.candidate().invoice().id();
            seen.add(id);
            if (row.isTaken() && !here.contains(id)) {
                added.add(row);
            } else if (row.decision() instanceof Decision.LeftOut out && here.contains(id) && !byHand.contains(id)) {
                removed.add(new Removed(id, out.inWords()));
            }
        }
        for (InvoiceId id : here) {
            if (!seen.contains(id) && !byHand.contains(id)) {
                removed.add(new Removed(id, "the criteria do not ask for it any more"));
            }
        }
        return new Gathering(List.copyOf(added), List.copyOf(removed));
    }

    /** The draft with the difference applied; credits come along with the claims they were chosen for. */
    public Draft applyTo(Draft draft, Selection now) {
        Set<InvoiceId> gone = new HashSet<>();
        removed.forEach(one -> gone.add(one.invoice()));
        List<Draft.Addition> additions = added.stream()
                .map(row -> new Draft.Addition(
                        row.candidate().payee().vendor(),
                        row.candidate().payee().remitTo(),
                        Draft.line(row)))
                .toList();
        Draft next = draft.takeOut(gone).add(additions, now.criteria().paying().grouping());
        Set<InvoiceId> used = new HashSet<>();
        next.claims().forEach(claim -> used.addAll(claim.credits()));
        Set<InvoiceId> fresh = new HashSet<>();
        added.forEach(row -> fresh.add(row.candidate().invoice().id()));
        for (Selection.ClaimDraft claim : now.claims()) {
            InvoiceId first = claim.rows().stream()
                    .map(row -> row.candidate().invoice().id())
                    .filter(fresh::contains)
                    .findFirst()
                    .orElse(null);
            List<InvoiceId> credits = claim.credits().stream()
                    .map(use -> use.credit().id())
                    .filter(id -> !used.contains(id))
                    .toList();
            if (first != null && !credits.isEmpty()) {
                next = next.addCredits(first, credits);
            }
        }
        return next;
    }

    /** The difference in one line, to compare what is applied with what was looked at. */
    public String shown() {
        String in = added.stream()
                .map(row -> row.candidate().invoice().id().value() + "=" + row.decision())
                .sorted()
                .collect(Collectors.joining(";"));
        String out = removed.stream()
                .map(one -> one.invoice().value() + "=" + one.why())
                .sorted()
                .collect(Collectors.joining(";"));
        return Sha256.hex(in + "\n" + out);
    }

    public boolean isEmpty() {
        return added.isEmpty() && removed.isEmpty();
    }
}
