package leveltally.server.marks;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.marks.WhileTyped;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads what helps whoever types a document; two statements, whatever the vendor has. */
@Component
class Beside {
    private static final int DAYS = 365;
    private static final int MOST_COMPARED = 5_000;
    private static final int LAST = 8;

    private final JdbcClient jdbc;

    Beside(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    private record Row(long id, String reference, LocalDate date, Money amount, Money open) {}

    /** @param typed its amount in its currency, as it is typed; null or unreadable while it is not there yet */
    record Amount(@Nullable String typed, @Nullable String currency) {
        private @Nullable Money read() {
            try {
                return typed == null || typed.isBlank() || currency == null || currency.isBlank()
                        ? null
                        : Money.parse(typed, Currency.getInstance(currency));
            } catch (IllegalArgumentException | leveltally.core.Refusal notYet) {
                // somebody is in the middle of it
                return null;
            }
        }
    }

    @Transactional(readOnly = true)
    BesideView of(VendorId vendor, String kind, String reference, LocalDate date, Amount amount) {
        List<Row> rows = jdbc.sql("""
                        SELECT id, reference, invoice_date, amount_minor, open_minor, currency FROM invoice
                        WHERE vendor_id = :vendor AND kind = :kind AND cancelled_on IS NULL AND invoice_date >= :since
                        ORDER BY id DESC LIMIT :most
                        """)
                .param("vendor", vendor.value())
                .param("kind", kind)
                .param("since", date.minusDays(DAYS))
                .param("most", MOST_COMPARED)
                .query((r, n) -> new Row(
                        r.getLong("id"),
                        r.getString("reference"),
                        r.getObject("invoice_date", LocalDate.class),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        Money.ofMinor(r.getLong("open_minor"), r.getString("currency"))))
                .list();
        int[] count = new int[1];
        List<MoneyView> open = new ArrayList<>(jdbc.sql("""
                        SELECT currency, COUNT(*) AS documents, SUM(open_minor) AS open FROM invoice
                        WHERE vendor_id = :vendor AND kind = :kind AND is_open = 1 GROUP BY currency
                        """)
                .param("vendor", vendor.value())
                .param("kind", kind)
                .query((r, n) -> {
                    count[0] += r.getInt("documents");
                    return MoneyView.of(r.getLong("open"), r.getString("currency"));
                })
                .list());
        WhileTyped.Document typed = new WhileTyped.Document(reference, date, amount.read());
        List<BesideView.BesideRow> likely =
                WhileTyped.secondTime(typed, rows.stream().map(Beside::earlier).toList()).stream()
                        .limit(LAST)
                        .map(one -> row(one.earlier(), one.words()))
                        .toList();
        return new BesideView(
                open,
                count[0],
                rows.stream()
                        .limit(LAST)
                        .map(row -> row(
                                earlier(row),
                                row.open().isZero()
                                        ? "settled"
                                        : row.open().equals(row.amount()) ? "open" : "open " + row.open()))
                        .toList(),
                likely);
    }

    private static WhileTyped.Earlier earlier(Row row) {
        return new WhileTyped.Earlier(
                new InvoiceId(row.id()), new WhileTyped.Document(row.reference(), row.date(), row.amount()));
    }

    private static BesideView.BesideRow row(WhileTyped.Earlier one, String words) {
        return new BesideView.BesideRow(
                one.id().value(),
                one.document().reference(),
                one.document().date(),
                MoneyView.of(one.document().amount()),
                words);
    }
}
