package leveltally.core.marks;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MarkingTest {
    private static final List<PastPayment> PAID = payments("100", "100", "100", "100", "100");

    private static List<PastPayment> payments(String... amounts) {
        List<PastPayment> list = new ArrayList<>();
        Arrays.stream(amounts).forEach(a -> list.add(new PastPayment("check", CHECK_DATE.minusDays(200), usd(a))));
        return list;
    }

    private static KnownInvoice invoice(long id, long vendor, String reference, String date, String amount) {
        return new KnownInvoice(
                new InvoiceId(id),
                0,
                new VendorId(vendor),
                "Vendor " + vendor,
                reference,
                day(date),
                usd(amount),
                "open");
    }

    private static Asked asked(String amount, KnownInvoice... invoices) {
        return new Asked(new VendorId(1), "Vendor 1", false, usd(amount), CHECK_DATE, List.of(invoices));
    }

    private static Known known(List<KnownInvoice> alike, List<PastPayment> past, Money... limits) {
        return new Known(alike, List.of(), past, List.of(), List.of(), List.of(), List.of(), List.of(limits));
    }

    private static List<MarkKind> kinds(List<Mark> marks) {
        return marks.stream().map(Mark::kind).toList();
    }

    @ParameterizedTest(name = "{0} and {1}, {2} and {3}: {4}")
    @CsvSource({
        // the same after punctuation, leading zeros and case
        "GRW 2217, grw-2217, 2026-10-14, 2025-10-14, true",
        "INV-00045, inv 45, 2026-10-14, 2026-01-14, true",
        "A-1-005, A15, 2026-10-14, 2026-09-14, true",
        "FS-100, FS-1000, 2026-10-14, 2026-09-14, false",
        // one swap away
        "GRW 2217, GRW 2271, 2026-10-14, 2025-11-01, true",
        "GRW 2217, GRW 7212, 2026-10-14, 2026-10-14, false",
        // a year and a day
        "GRW 2217, GRW 2217X, 2026-10-14, 2026-10-14, false",
        "R7, R7, 2026-10-14, 2025-10-14, true",
        "R7, R7, 2026-10-14, 2025-10-13, false",
        // one digit away, within seven days only
        "FS-5132, FS-5133, 2026-10-14, 2026-10-21, true",
        "FS-5132, FS-5133, 2026-10-14, 2026-10-22, false",
        "FS-5132, FS-512, 2026-10-14, 2026-10-15, true",
        "FS-5132, FX-5132, 2026-10-14, 2026-10-14, false",
        "FS-5132, FS-5299, 2026-10-14, 2026-10-14, false"
    })
    void duplicates(String one, String other, String dated, String otherDated, boolean marked) {
        KnownInvoice paid = invoice(1, 1, one, dated, "1392.60");
        KnownInvoice alike = invoice(2, 1, other, otherDated, "1392.60");
        List<Mark> marks = Marking.of(asked("1392.60", paid), known(List.of(alike, paid), PAID));
        assertThat(kinds(marks).contains(MarkKind.DUPLICATE)).isEqualTo(marked);
        if (marked) {
            assertThat(marks.get(0).reason()).contains(one, other, "1,392.60");
            assertThat(marks.get(0).facts())
                    .containsExactly(new Fact.OtherInvoice(
                            new InvoiceId(2), "Vendor 1", other, day(otherDated), usd("1392.60"), "open"));
            List<Mark> turned = Marking.of(asked("1392.60", alike), known(List.of(paid), PAID));
            assertThat(turned.get(0).key())
                    .as("one matter, one key")
                    .isEqualTo(marks.get(0).key());
        }
    }

    @Test
    void twoOfOnePaymentAreOneMatter() {
        KnownInvoice one = invoice(1, 1, "R-9", "2026-10-14", "50.00");
        KnownInvoice two = invoice(2, 1, "R 9", "2026-10-16", "50.00");
        assertThat(Marking.of(asked("100", one, two), known(List.of(one, two), PAID)))
                .extracting(Mark::key)
                .containsExactly("DUPLICATE 1 2");
    }

    @Test
    void anotherAmountIsNoDuplicateAndAnotherVendorIsNamed() {
        KnownInvoice paid = invoice(1, 1, "R-9", "2026-10-14", "50.00");
        assertThat(Marking.of(asked("50", paid), known(List.of(invoice(2, 1, "R-9", "2026-10-14", "50.01")), PAID)))
                .isEmpty();
        assertThat(Marking.of(asked("50", paid), known(List.of(invoice(2, 8, "R-9", "2026-10-14", "50")), PAID)))
                .singleElement()
                .extracting(Mark::reason)
                .asString()
                .contains("of Vendor 8");
    }

    @ParameterizedTest
    @CsvSource({
        "300.00, 100 100 100 100 100, false",
        "300.01, 100 100 100 100 100, true",
        "900.00, 100 100 100 100, false",
        // an even number: halfway between the middle two, 150
        "450.00, 10 100 200 10 100 200 200 200, false",
        "450.01, 10 100 200 200 100 10 200 200, true",
        // only the last twelve
        "301.00, 1000 1000 1000 1000 100 100 100 100 100 100 100 100 90000 90000, true"
    })
    void farAboveTheUsual(String now, String last, boolean marked) {
        List<PastPayment> past = payments(last.split(" "));
        List<Mark> marks = Marking.of(asked(now), known(List.of(), past));
        assertThat(kinds(marks).contains(MarkKind.FAR_ABOVE)).isEqualTo(marked);
    }

    /** The median of twelve against sorting and halving in tenths of a cent. */
    @Test
    void theUsualAgreesWithSorting() {
        Random random = new Random(3);
        for (int run = 0; run < 2_000; run++) {
            int count = random.nextInt(16);
            List<PastPayment> past = new ArrayList<>();
            List<Long> last = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                long minor = 1 + random.nextInt(50);
                past.add(new PastPayment("x", CHECK_DATE.minusDays(100 + i), Money.ofMinor(minor, "USD")));
                if (i < 12) {
                    last.add(minor);
                }
            }
            last.sort(null);
            long now = 1 + random.nextInt(200);
            boolean slow = false;
            if (last.size() >= 5) {
                double half = (last.size() - 1) / 2.0;
                double median = (last.get((int) Math.floor(half)) + last.get((int) Math.ceil(half))) / 2.0;
                slow = now > 3 * median;
            }
            Asked asked = new Asked(new VendorId(1), "V", false, Money.ofMinor(now, "USD"), CHECK_DATE, List.of());
            assertThat(kinds(Marking.of(asked, known(List.of(), past))).contains(MarkKind.FAR_ABOVE))
                    .isEqualTo(slow);
        }
    }

    @Test
    void justUnderALimit() {
        KnownInvoice first = invoice(1, 1, "SA-401", "2026-10-21", "9600.00");
        KnownInvoice second = invoice(2, 1, "SA-402", "2026-10-22", "9725.00");
        Known nothingElse = known(List.of(), PAID, usd("10000"));
        List<Mark> together = Marking.of(asked("19325.00", first, second), nothingElse);
        assertThat(kinds(together)).contains(MarkKind.JUST_UNDER);
        Mark mark = together.stream()
                .filter(m -> m.kind() == MarkKind.JUST_UNDER)
                .findFirst()
                .orElseThrow();
        assertThat(mark.reason()).contains("2 invoices of Vendor 1", "10,000.00", "19,325.00");
        assertThat(mark.facts()).hasSize(2);
        assertThat(kinds(Marking.of(asked("9600.00", first), nothingElse))).doesNotContain(MarkKind.JUST_UNDER);
        Known other = new Known(
                List.of(),
                List.of(),
                PAID,
                List.of(new PastPayment("another payment of this batch", CHECK_DATE, usd("9000.00"))),
                List.of(),
                List.of(),
                List.of(),
                List.of(usd("10000")));
        assertThat(kinds(Marking.of(asked("9600.00", first), other))).contains(MarkKind.JUST_UNDER);
        assertThat(kinds(Marking.of(asked("10000.01", invoice(9, 1, "x", "2026-10-21", "10000.01")), other)))
                .as("over the limit is not under it")
                .doesNotContain(MarkKind.JUST_UNDER);
    }

    @ParameterizedTest
    @CsvSource({
        "2026-11-13, 9000, true",
        "2026-10-14, 9000, true",
        "2026-10-13, 9000, false",
        "2026-11-01, 8999.99, false"
    })
    void earlierPaymentsCountForThirtyDays(LocalDate earlier, String amount, boolean marked) {
        List<PastPayment> past = List.of(new PastPayment("check 41300", earlier, usd(amount)));
        List<Mark> marks = Marking.of(asked("9500"), known(List.of(), past, usd("10000")));
        assertThat(kinds(marks).contains(MarkKind.JUST_UNDER)).isEqualTo(marked);
    }

    @Test
    void firstOneTimeAndChangedPayees() {
        assertThat(kinds(Marking.of(asked("5"), known(List.of(), List.of())))).containsExactly(MarkKind.FIRST_PAYMENT);
        Asked once = new Asked(new VendorId(1), "Storm Salvage", true, usd("5"), CHECK_DATE, List.of());
        assertThat(kinds(Marking.of(once, known(List.of(), List.of())))).containsExactly(MarkKind.ONE_TIME);
        Fact.Change change = new Fact.Change(
                "bank details", "IBAN ZZ ••••1111", "IBAN ZZ ••••2222", day("2026-11-05"), "Ines", "Ruth");
        List<Mark> marks = Marking.of(
                asked("5"),
                new Known(List.of(), List.of(), PAID, List.of(), List.of(), List.of(change), List.of(), List.of()));
        assertThat(marks).singleElement().satisfies(mark -> {
            assertThat(mark.kind()).isEqualTo(MarkKind.CHANGED_PAYEE);
            assertThat(mark.reason()).isEqualTo("The bank details of Vendor 1 changed on Thu 5 Nov 2026.");
            assertThat(mark.facts()).containsExactly(change);
        });
    }

    @Test
    void whatTheBankSentBackIsSaidOnce() {
        Known known = new Known(
                List.of(),
                List.of(),
                PAID,
                List.of(),
                List.of(),
                List.of(),
                List.of(
                        new SentBack("A500002", day("2026-11-09"), "R02: the account is closed"),
                        new SentBack("A500001", day("2026-11-02"), "R09: the money was not collected yet")),
                List.of());
        assertThat(Marking.of(asked("5"), known)).singleElement().satisfies(mark -> {
            assertThat(mark.kind()).isEqualTo(MarkKind.SENT_BACK);
            assertThat(mark.reason())
                    .isEqualTo("The bank sent A500002 to Vendor 1 back on Mon 9 Nov 2026 (R02: the account is closed),"
                            + " and its bank details are the same as then.");
        });
    }

    @Test
    void whatWasPaidAheadAndWaitsIsSaid() {
        KnownInvoice waits = invoice(7, 1, "BDD-2701", "2026-11-09", "500");
        Known known = new Known(List.of(), List.of(waits), PAID, List.of(), List.of(), List.of(), List.of(), List.of());
        assertThat(Marking.of(asked("100", invoice(8, 1, "BDD-2701", "2026-11-10", "100")), known))
                .singleElement()
                .satisfies(mark -> {
                    assertThat(mark.kind()).isEqualTo(MarkKind.PAID_AHEAD);
                    assertThat(mark.reason()).startsWith("500.00 was paid ahead of BDD-2701");
                });
    }
}
