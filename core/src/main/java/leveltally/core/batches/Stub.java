package leveltally.core.batches;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * What the remittance stub of a claim lists. Σ of what its rows paid is the claim's amount.
 *
 * @param note stands above the rows; empty for none
 * @param entries how many invoices and credits the claim is for, listed or summed up
 */
public record Stub(List<Row> rows, String note, int entries) {

    /**
     * One row; a credit lowers what is paid.
     *
     * @param date absent where the row sums several up
     */
    public record Row(String reference, @Nullable LocalDate date, Money settles, Money discount, Money paid) {}

    /** @param hidden what is not listed by itself but summed up in the last row */
    public static Stub of(List<ClaimLine> lines, Map<InvoiceId, LocalDate> dates, Set<InvoiceId> hidden, String note) {
        List<Row> rows = new ArrayList<>();
        Row rest = null;
        int summedUp = 0;
        for (ClaimLine line : lines) {
            Money settles = line.settles();
            InvoiceId item = line.item().orElse(null);
            Row row = new Row(
                    line.reference(),
                    item == null ? null : dates.get(item),
                    settles,
                    line.discount(),
                    settles.minus(line.discount()));
            if (item == null || !hidden.contains(item)) {
                rows.add(row);
            } else {
                summedUp++;
                rest = rest == null
                        ? row
                        : new Row(
                                "",
                                null,
                                rest.settles().plus(row.settles()),
                                rest.discount().plus(row.discount()),
                                rest.paid().plus(row.paid()));
            }
        }
        if (rest != null) {
            String words = summedUp == 1 ? "1 more entry" : summedUp + " more entries";
            rows.add(new Row(words, null, rest.settles(), rest.discount(), rest.paid()));
        }
        return new Stub(List.copyOf(rows), note, lines.size());
    }
}
