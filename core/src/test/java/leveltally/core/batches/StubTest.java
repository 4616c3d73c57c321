package leveltally.core.batches;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.invoices.InvoiceId;
import org.junit.jupiter.api.Test;

class StubTest {
    private static ClaimLine line(long id, String gross, String discount, String credit) {
        return new ClaimLine.Invoice(new InvoiceId(id), "R-" + id, usd(gross), usd(discount), usd(credit));
    }

    private static final List<ClaimLine> LINES = List.of(
            line(1, "800", "11", "250"),
            line(2, "300", "0", "0"),
            line(3, "20", "0", "0"),
            new ClaimLine.Credit(new InvoiceId(9), "R-9", usd("250")));

    private static List<String> rows(Set<InvoiceId> hidden) {
        return Stub.of(LINES, Map.of(new InvoiceId(1), day("2026-11-01")), hidden, "").rows().stream()
                .map(row -> row.reference() + " " + row.settles() + " " + row.discount() + " " + row.paid())
                .toList();
    }

    @Test
    void creditsLowerWhatIsPaid() {
        assertThat(rows(Set.of()))
                .containsExactly(
                        "R-1 800.00 11.00 789.00",
                        "R-2 300.00 0.00 300.00",
                        "R-3 20.00 0.00 20.00",
                        "R-9 -250.00 0.00 -250.00");
    }

    @Test
    void whatIsHiddenIsSummedUpAndTheTotalStays() {
        assertThat(rows(Set.of(new InvoiceId(1), new InvoiceId(3))))
                .containsExactly(
                        "R-2 300.00 0.00 300.00", "R-9 -250.00 0.00 -250.00", "2 more entries 820.00 11.00 809.00");
        assertThat(rows(Set.of(new InvoiceId(2)))).contains("1 more entry 300.00 0.00 300.00");
    }
}
