package leveltally.core.marks;

import java.time.LocalDate;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/** What a mark rests on, to be shown beside its reason. */
public sealed interface Fact {
    /** Turns a fact into something else, exhaustively. */
    interface Cases<T> {
        T other(OtherInvoice other);

        T change(Change change);

        T usual(Usual usual);

        T item(Item item);
    }

    <T> T fold(Cases<T> cases);

    /**
     * The other invoice of a suspected duplicate.
     *
     * @param id null where it was paid without an invoice
     * @param where what became of it
     */
    record OtherInvoice(
            @Nullable InvoiceId id, String payee, String reference, LocalDate date, Money amount, String where)
            implements Fact {
        @Override
        public <T> T fold(Cases<T> cases) {
            return cases.other(this);
        }
    }

    /** What was changed, before and after; bank details are masked already. */
    record Change(String what, String before, String after, LocalDate on, String proposedBy, String confirmedBy)
            implements Fact {
        @Override
        public <T> T fold(Cases<T> cases) {
            return cases.change(this);
        }
    }

    /** The range of the last payments, the middle one (rounded up to the minor unit), and this one. */
    record Usual(int known, Money low, Money median, Money high, Money now) implements Fact {
        @Override
        public <T> T fold(Cases<T> cases) {
            return cases.usual(this);
        }
    }

    /** One of several amounts that together pass a limit. */
    record Item(String what, LocalDate date, Money amount) implements Fact {
        @Override
        public <T> T fold(Cases<T> cases) {
            return cases.item(this);
        }
    }
}
