package leveltally.core.selection;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class SelectionTest {
    private static final Criteria CRITERIA = new Criteria(
            USD, PaymentMethod.CHECK, CHECK_DATE, CHECK_DATE, day("2026-11-20"), day("2026-11-27"), null, 0);
    private static final OpenInvoice PLAIN = invoice(1, "100", "2026-10-20", "2026-11-19", "0", null);

    private static Candidate candidate(
            OpenInvoice invoice,
            PaymentMethod method,
            @Nullable String hold,
            @Nullable String vendor,
            @Nullable String batch) {
        return new Candidate(invoice, new VendorId(7), "Bollard Foundry", 70, method, hold, vendor, batch);
    }

    private static Candidate of(OpenInvoice invoice) {
        return candidate(invoice, PaymentMethod.CHECK, null, null, null);
    }

    static Stream<Arguments> reasons() {
        OpenInvoice later = invoice(2, "100", "2026-11-14", "2026-11-19", "0", null);
        OpenInvoice nextMonth = new OpenInvoice(
                new InvoiceId(3),
                "R-3",
                day("2026-11-01"),
                day("2026-11-19"),
                day("2026-12-01"),
                usd("100"),
                usd("100"),
                PLAIN.discount());
        Money euro = Money.ofMinor(10_000, "EUR");
        OpenInvoice foreign = new OpenInvoice(
                new InvoiceId(4),
                "R-4",
                day("2026-11-01"),
                day("2026-11-19"),
                day("2026-11-01"),
                euro,
                euro,
                PLAIN.discount());
        PaymentMethod check = PaymentMethod.CHECK;
        return Stream.of(
                Arguments.of(LeftOutReason.HELD_INVOICE, candidate(PLAIN, check, "wrong sizes", "x", "y")),
                Arguments.of(LeftOutReason.HELD_VENDOR, candidate(PLAIN, check, null, "dispute", "y")),
                Arguments.of(LeftOutReason.IN_ANOTHER_BATCH, candidate(foreign, check, null, null, "Yard week 46")),
                Arguments.of(LeftOutReason.OTHER_CURRENCY, of(foreign)),
                Arguments.of(
                        LeftOutReason.OTHER_METHOD, candidate(later, PaymentMethod.CREDIT_TRANSFER, null, null, null)),
                Arguments.of(LeftOutReason.DATED_AFTER_CHECK_DATE, of(later)),
                Arguments.of(LeftOutReason.ENTERED_IN_LATER_PERIOD, of(nextMonth)));
    }

    @ParameterizedTest
    @MethodSource("reasons")
    void leavesOutWithTheFirstReasonThatApplies(LeftOutReason reason, Candidate candidate) {
        Selection selection = Selection.of(CRITERIA, List.of(candidate), Set.of());
        assertThat(selection.taken()).isEmpty();
        assertThat(selection.leftOut()).containsExactly(new Selection.LeftOutTotal(reason, 1));
    }

    @Test
    void takesOutByHandOnlyWhatCouldBeTaken() {
        Candidate held = candidate(
                invoice(5, "10", "2026-10-01", "2026-11-01", "0", null), PaymentMethod.CHECK, "x", null, null);
        Selection selection =
                Selection.of(CRITERIA, List.of(of(PLAIN), held), Set.of(new InvoiceId(1), new InvoiceId(5)));
        assertThat(selection.leftOut())
                .containsExactly(
                        new Selection.LeftOutTotal(LeftOutReason.HELD_INVOICE, 1),
                        new Selection.LeftOutTotal(LeftOutReason.TAKEN_OUT_BY_HAND, 1));
    }

    @Test
    void asksForWhatIsDueOrLosesItsDiscount() {
        assertThat(CRITERIA.asksFor(PLAIN)).isTrue();
        assertThat(CRITERIA.asksFor(invoice(1, "100", "2026-11-05", "2026-12-05", "2", "2026-11-15")))
                .isTrue();
        assertThat(CRITERIA.asksFor(invoice(1, "100", "2026-11-05", "2026-12-05", "2", "2026-11-27")))
                .isFalse();
        assertThat(CRITERIA.asksFor(invoice(1, "100", "2026-11-05", "2026-12-05", "0", null)))
                .isFalse();
    }

    @Test
    void rejectsANextRunThatIsNotLater() {
        assertThatThrownBy(() ->
                        new Criteria(USD, PaymentMethod.CHECK, CHECK_DATE, CHECK_DATE, CHECK_DATE, CHECK_DATE, null, 0))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("must be after the check date");
    }

    /** Against the slow reference: every candidate is counted once, claims hold exactly what is taken, totals agree. */
    @Test
    void tallyHoldsForAnyCandidates() {
        Random random = new Random(11);
        for (int round = 0; round < 300; round++) {
            List<Candidate> candidates = new ArrayList<>();
            for (int i = 0; i < random.nextInt(40); i++) {
                OpenInvoice invoice = invoice(
                        i,
                        String.valueOf(1 + random.nextInt(900)),
                        "2026-11-" + (10 + random.nextInt(8)),
                        "2026-11-18",
                        "2",
                        "2026-11-" + (10 + random.nextInt(19)));
                long vendor = random.nextInt(5);
                candidates.add(new Candidate(
                        invoice,
                        new VendorId(vendor),
                        "Vendor " + vendor,
                        vendor * 10 + random.nextInt(2),
                        PaymentMethod.CHECK,
                        random.nextInt(6) == 0 ? "held" : null,
                        null,
                        random.nextInt(6) == 0 ? "other" : null));
            }
            Selection selection = Selection.of(CRITERIA, candidates, Set.of());
            int out = selection.leftOut().stream()
                    .mapToInt(Selection.LeftOutTotal::count)
                    .sum();
            assertThat(selection.taken().size() + out).isEqualTo(candidates.size());
            Money claims = Money.sum(
                    selection.claims().stream()
                            .map(Selection.ClaimDraft::amount)
                            .toList(),
                    USD);
            assertThat(claims).isEqualTo(selection.toPay());
            long open = selection.taken().stream()
                    .mapToLong(r -> r.candidate().invoice().open().minor())
                    .sum();
            assertThat(selection.toPay().plus(selection.saved()).minor()).isEqualTo(open);
            assertThat(selection.claims())
                    .isSortedAccordingTo(java.util.Comparator.comparing(Selection.ClaimDraft::payee));
            assertThat(selection.claims().stream().map(c -> List.of(c.vendor(), c.remitTo())))
                    .doesNotHaveDuplicates();
        }
    }
}
