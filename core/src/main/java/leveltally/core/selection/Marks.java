package leveltally.core.selection;

import java.util.Collection;
import java.util.Set;
import leveltally.core.invoices.InvoiceId;

/** What a clerk marked by hand: taken out, and taken in whatever the criteria, the limit or the order say. */
public record Marks(Set<InvoiceId> out, Set<InvoiceId> in) {
    public static final Marks NONE = new Marks(Set.of(), Set.of());

    public Marks {
        out = Set.copyOf(out);
        in = Set.copyOf(in);
    }

    /** True when one of these was taken in by hand, which takes in the whole claim. */
    boolean takesIn(Collection<Candidate> members) {
        return members.stream().anyMatch(member -> in.contains(member.invoice().id()));
    }

    /** As if nothing had been taken out by hand. */
    Marks withNothingOut() {
        return new Marks(Set.of(), in);
    }
}
