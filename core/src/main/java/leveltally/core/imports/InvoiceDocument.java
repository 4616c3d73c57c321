package leveltally.core.imports;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * A document out of all its rows, wherever they stand in the file: it comes in whole or not at all.
 *
 * @param head a row that says what all of them say
 * @param notDiscountable Σ of what the rows mark
 * @param ownCheck true when any row says so
 * @param usableFrom the day any row names; null when none does
 */
public record InvoiceDocument(
        InvoiceRow head,
        List<InvoiceRow> rows,
        Money notDiscountable,
        boolean ownCheck,
        @Nullable LocalDate usableFrom) {
    /** More lines than any document has. */
    public static final int MOST_ROWS = 10_000;

    /** A document, or the first thing that keeps it out. */
    public record Read(
            @Nullable InvoiceDocument document, @Nullable Finding finding) {}

    /** @param rows not empty, all of one {@link InvoiceRow#identity} */
    public static Read of(List<InvoiceRow> rows) {
        InvoiceRow head = rows.get(0);
        if (rows.size() > MOST_ROWS) {
            return refused("reference", "has more than 10,000 lines, more than one document can have");
        }
        Finding apart = differing(rows);
        if (apart != null) {
            return new Read(null, apart);
        }
        Money zero = Money.zero(head.amount().currency());
        Money total = rows.stream().map(InvoiceRow::amount).reduce(zero, Money::plus);
        if (!total.isPositive()) {
            return refused(
                    "amount",
                    "its lines come to " + total
                            + "; a document must come to more than zero, a credit has the kind credit");
        }
        if (total.toDecimal().compareTo(Money.MOST) > 0) {
            return refused("amount", "its lines come to " + total + ", more than 99,999,999,999.99");
        }
        Money notDiscountable = rows.stream().map(InvoiceRow::notDiscountable).reduce(zero, Money::plus);
        if (notDiscountable.compareTo(total) > 0) {
            return refused(
                    "not_discountable",
                    "what earns no discount, " + notDiscountable + ", is more than its lines, " + total);
        }
        return new Read(
                new InvoiceDocument(
                        head,
                        List.copyOf(rows),
                        notDiscountable,
                        rows.stream().anyMatch(InvoiceRow::ownCheck),
                        rows.stream()
                                .map(InvoiceRow::usableFrom)
                                .filter(Objects::nonNull)
                                .findFirst()
                                .orElse(null)),
                null);
    }

    /** What is said of the whole document is said alike by all rows that say it. */
    private static @Nullable Finding differing(List<InvoiceRow> rows) {
        record Part(String column, Function<InvoiceRow, Object> of) {}
        List<Part> parts = List.of(
                new Part("currency", row -> row.amount().currency()),
                new Part("invoice_date", InvoiceRow::invoiceDate),
                new Part("ledger_date", InvoiceRow::ledgerDate),
                new Part("terms", InvoiceRow::terms),
                new Part("due_date", InvoiceRow::dueDate),
                new Part("usable_from", InvoiceRow::usableFrom));
        for (Part part : parts) {
            Set<Object> said =
                    rows.stream().map(part.of()).filter(Objects::nonNull).collect(Collectors.toSet());
            if (said.size() > 1) {
                return new Finding(part.column(), "differs between the lines of this document");
            }
        }
        return null;
    }

    private static Read refused(String column, String reason) {
        return new Read(null, new Finding(column, reason));
    }
}
