package leveltally.core.selection;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;

class FiltersTest {
    private static final Candidate CANDIDATE = new Candidate(
            invoice(7731, "100", "2026-10-20", "2026-11-19", "0", null),
            new Payee(
                    new VendorId(7),
                    "V7",
                    "Bollard",
                    "Yard",
                    3,
                    PaymentMethod.CHECK,
                    null,
                    70,
                    "Bollard",
                    "",
                    new Reach(true, BankDetails.Kind.ROUTED, true)),
            false,
            null,
            null);

    private static String outside(Filters filters) {
        return filters.outside(CANDIDATE).orElse("inside");
    }

    @Test
    void eachFilterNamesWhatItKeepsOut() {
        assertThat(outside(Filters.NONE)).isEqualTo("inside");
        assertThat(outside(new Filters(
                        Set.of(new VendorId(8)), null, Span.all(), Span.all(), Span.all(), Span.all(), Span.all())))
                .isEqualTo("another vendor");
        assertThat(outside(new Filters(Set.of(), "Fuel", Span.all(), Span.all(), Span.all(), Span.all(), Span.all())))
                .isEqualTo("vendor group Yard, not Fuel");
        assertThat(outside(
                        new Filters(Set.of(), null, new Span<>(1, 2), Span.all(), Span.all(), Span.all(), Span.all())))
                .isEqualTo("priority 3, not 1 to 2");
        assertThat(outside(new Filters(
                        Set.of(),
                        null,
                        Span.all(),
                        new Span<>(day("2026-11-01"), null),
                        Span.all(),
                        Span.all(),
                        Span.all())))
                .isEqualTo("dated 2026-10-20, not from 2026-11-01");
        assertThat(outside(new Filters(
                        Set.of(),
                        null,
                        Span.all(),
                        Span.all(),
                        new Span<>("r-7000", "R-7999"),
                        new Span<>(1L, 7_731L),
                        new Span<>(usd("99"), usd("100")))))
                .isEqualTo("inside");
        assertThat(outside(new Filters(
                        Set.of(), null, Span.all(), Span.all(), Span.all(), Span.all(), new Span<>(null, usd("99")))))
                .isEqualTo("open 100.00, not up to 99.00");
    }

    @Test
    void rejectsARangeThatIsTurned() {
        assertThatThrownBy(() -> Span.of(5, 3, "priorityFrom", "priorities"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("ends (3) before it begins (5)");
    }
}
