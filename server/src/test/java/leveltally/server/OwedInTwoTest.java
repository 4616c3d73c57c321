package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.electronic.Electronic;
import leveltally.server.proof.Proof;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import org.junit.jupiter.api.Test;

/** A vendor that is owed in two currencies. */
class OwedInTwoTest {
    private static String entered(Http clerk, long vendor, String reference, String currency, String amount) {
        return clerk.post("/api/invoices", """
                        {"kind": "INVOICE", "vendor": %d, "reference": "%s", "invoiceDate": "%s", "currency": "%s",
                          "lines": [{"account": %d, "amount": "%s"}]}
                        """.formatted(
                                vendor,
                                reference,
                                App.TODAY.minusDays(9),
                                currency,
                                number("SELECT id FROM ledger_account WHERE code = '5200'"),
                                amount))
                .body();
    }

    private static List<InvoiceId> taken(DueQuestion asked, long vendor) {
        return bean(Due.class).select(asked.toVendors(List.of(vendor)), App.TODAY).taken().stream()
                .map(row -> row.candidate().invoice().id())
                .toList();
    }

    private static InvoiceId entry(String reference) {
        return new InvoiceId(number("SELECT id FROM invoice WHERE reference = ?", reference));
    }

    /** Each is paid from an account of its own currency, and none is added to another. */
    @Test
    void aVendorIsOwedInTwo() {
        String name = Electronic.vendor(PaymentMethod.CREDIT_TRANSFER, "EUR", Electronic.account());
        long vendor = App.vendor(name).value();
        Http clerk = Http.signedIn("ines");
        assertThat(entered(clerk, vendor, "TWO-E", "EUR", "10.00")).contains("\"currency\":\"EUR\"");
        assertThat(entered(clerk, vendor, "TWO-U", "USD", "25.50")).contains("\"currency\":\"USD\"");
        assertThat(App.jdbc()
                        .sql("SELECT detail FROM audit_record WHERE deed = 'enter invoice' AND subject = ?")
                        .param("invoice " + entry("TWO-U").value())
                        .query(String.class)
                        .single())
                .contains("25.50", "USD");
        assertThat(entered(clerk, vendor, "TWO-C", "CHF", "1.00")).contains("no bank account in CHF");
        assertThat(clerk.get("/api/invoices/preview?vendor=" + vendor + "&invoiceDate=2026-11-02&amounts=1.50")
                        .body())
                .contains("\"currency\":\"EUR\"", "\"currencies\":[\"EUR\"", "\"USD\"");
        assertThat(clerk.get("/api/vendors/" + vendor).body())
                .contains("\"text\":\"10.00\",\"currency\":\"EUR\"", "\"text\":\"25.50\",\"currency\":\"USD\"");
        assertThat(clerk.get("/api/vendors/list?text=" + name.replace(" ", "%20"))
                        .body())
                .contains("\"text\":\"10.00\",\"currency\":\"EUR\"", "\"text\":\"25.50\",\"currency\":\"USD\"");
        String day = App.TODAY.toString();
        long euro = number("SELECT MIN(id) FROM bank_account WHERE currency = 'EUR'");
        assertThat(taken(DueQuestion.of(euro, day, "2027-12-31", null), vendor)).containsExactly(entry("TWO-E"));
        WayId dollars = Electronic.way(Electronic.wanted(Electronic.transfers()));
        DueQuestion asked = DueQuestion.of(App.operations().value(), day, "2027-12-31", null)
                .by(dollars);
        assertThat(taken(asked, vendor)).containsExactly(entry("TWO-U"));
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }
}
