package leveltally.core.selection;

import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * What narrows the candidates, joined by “and”; references compare without case.
 *
 * @param vendors only these; empty for all
 * @param group only this vendor group; null for all
 */
public record Filters(
        Set<VendorId> vendors,
        @Nullable String group,
        Span<Integer> priority,
        Span<LocalDate> invoiceDate,
        Span<String> reference,
        Span<Long> entry,
        Span<Money> amount) {

    public static final Filters NONE =
            new Filters(Set.of(), null, Span.all(), Span.all(), Span.all(), Span.all(), Span.all());

    public Filters {
        vendors = Set.copyOf(vendors);
    }

    public boolean passes(Candidate candidate) {
        return outside(candidate).isEmpty();
    }

    /** The first filter this invoice does not pass, in words; empty when it passes all. */
    public Optional<String> outside(Candidate candidate) {
        var invoice = candidate.invoice();
        Payee payee = candidate.payee();
        if (!vendors.isEmpty() && !vendors.contains(payee.vendor())) {
            return Optional.of("another vendor");
        }
        if (group != null && !group.equals(payee.group())) {
            return Optional.of("vendor group " + payee.group() + ", not " + group);
        }
        if (!priority.contains(payee.priority())) {
            return Optional.of("priority " + payee.priority() + ", not " + priority);
        }
        if (!invoiceDate.contains(invoice.invoiceDate())) {
            return Optional.of("dated " + invoice.invoiceDate() + ", not " + invoiceDate);
        }
        if (!reference.isAll() && !folded().contains(fold(invoice.reference()))) {
            return Optional.of("reference " + invoice.reference() + ", not " + reference);
        }
        if (!entry.contains(invoice.id().value())) {
            return Optional.of("entry number " + invoice.id().value() + ", not " + entry);
        }
        // an amount of another currency is not compared; its own reason follows
        if (!amount.isAll() && sameCurrency(invoice.open()) && !amount.contains(invoice.open())) {
            return Optional.of("open " + invoice.open() + ", not " + amount);
        }
        return Optional.empty();
    }

    private boolean sameCurrency(Money open) {
        Money bound = amount.from() == null ? amount.to() : amount.from();
        return bound != null && bound.currency().equals(open.currency());
    }

    private Span<String> folded() {
        String from = reference.from();
        String to = reference.to();
        return new Span<>(from == null ? null : fold(from), to == null ? null : fold(to));
    }

    private static String fold(String text) {
        return text.toLowerCase(Locale.ROOT);
    }
}
