package leveltally.core.selection;

import java.time.LocalDate;
import java.util.Comparator;
import leveltally.core.invoices.OpenInvoice;

/** How urgently a claim wants cash: the strongest key of its invoices. */
record Strength(int priority, LocalDate discountUntil, LocalDate due, LocalDate dated, long entry)
        implements Comparable<Strength> {
    private static final Comparator<Strength> ORDER = Comparator.comparingInt(Strength::priority)
            .thenComparing(Strength::discountUntil)
            .thenComparing(Strength::due)
            .thenComparing(Strength::dated)
            .thenComparing(Strength::entry);

    static Strength of(Selection.ClaimDraft claim, Criteria criteria) {
        return claim.rows().stream()
                .map(row -> of(row.candidate(), criteria))
                .min(ORDER)
                .orElseThrow();
    }

    private static Strength of(Candidate candidate, Criteria criteria) {
        OpenInvoice invoice = candidate.invoice();
        LocalDate until = invoice.discount().until();
        boolean lives = until != null && invoice.discount().livesOn(criteria.checkDate(), criteria.graceDays());
        return new Strength(
                candidate.payee().priority(),
                lives ? until : LocalDate.MAX,
                invoice.dueDate(),
                invoice.invoiceDate(),
                invoice.id().value());
    }

    @Override
    public int compareTo(Strength other) {
        return ORDER.compare(this, other);
    }
}
