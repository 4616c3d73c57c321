package leveltally.core.selection;

import java.util.Set;
import leveltally.core.invoices.InvoiceId;

/** What a clerk marked by hand: taken out, and taken in whatever the criteria, the limit or the order say. */
public record Marks(Set<InvoiceId> out, Set<InvoiceId> in) {
    public static final Marks NONE = new Marks(Set.of(), Set.of());

    public Marks {
        out = Set.copyOf(out);
        in = Set.copyOf(in);
    }
}
