package leveltally.core.selection;

import static leveltally.core.Cases.CHECK_DATE;
import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.openCredit;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.terms.Discount;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class SelectionTest {
    private static final OpenInvoice PLAIN = invoice(1, "100", "2026-10-20", "2026-11-19", "0", null);

    private static Criteria criteria(Paying paying) {
        return new Criteria(
                USD,
                PaymentMethod.CHECK,
                CHECK_DATE,
                CHECK_DATE,
                day("2026-11-20"),
                day("2026-11-27"),
                0,
                Filters.NONE,
                paying);
    }

    private static Paying paying(boolean credits, @Nullable String smallest, @Nullable String limit, CashWay way) {
        return new Paying(
                credits,
                Paying.Grouping.PAYEE,
                ClaimOrder.PAYEE,
                smallest == null ? null : usd(smallest),
                limit == null ? null : usd(limit),
                way);
    }

    private static final Criteria CRITERIA = criteria(Paying.PLAIN);

    private static Payee payee(long vendor, int priority) {
        return new Payee(
                new VendorId(vendor),
                "V" + vendor,
                "Vendor " + vendor,
                "Yard",
                priority,
                PaymentMethod.CHECK,
                null,
                vendor * 10,
                "Vendor " + vendor,
                "4100" + vendor,
                new Reach(true, BankDetails.Kind.ROUTED, true));
    }

    private static Candidate of(OpenInvoice invoice, Payee payee) {
        return new Candidate(invoice, payee, false, null, null);
    }

    private static Candidate of(OpenInvoice invoice) {
        return of(invoice, payee(7, 3));
    }

    private static Candidate ownCheck(OpenInvoice invoice, Payee payee) {
        return new Candidate(invoice, payee, true, null, null);
    }

    private static CreditCandidate credit(OpenCredit credit, Payee payee) {
        return new CreditCandidate(credit, payee.vendor(), payee.remitTo(), null, null);
    }

    private static Selection select(Criteria criteria, Candidate... candidates) {
        return Selection.of(criteria, List.of(candidates), List.of(), Marks.NONE);
    }

    private static final Set<LeftOutReason> LACKS = EnumSet.of(
            LeftOutReason.NO_ADDRESS,
            LeftOutReason.NO_BANK_DETAILS,
            LeftOutReason.BANK_DETAILS_NOT_CONFIRMED,
            LeftOutReason.NOT_SET_UP_FOR_ACH);

    /** Every pair of reasons that can apply to one invoice at once. */
    static Stream<Arguments> pairs() {
        List<LeftOutReason> reasons = Stream.of(LeftOutReason.values())
                .filter(reason -> reason != LeftOutReason.NOT_USABLE_YET)
                .toList();
        return reasons.stream()
                .flatMap(first -> reasons.stream()
                        .filter(second -> first.compareTo(second) <= 0)
                        // one way to pay lacks one thing
                        .filter(second -> first == second || !LACKS.contains(first) || !LACKS.contains(second))
                        // what credits cover altogether is no payment that could be too small
                        .filter(second -> first != LeftOutReason.COVERED_BY_CREDITS
                                || second != LeftOutReason.UNDER_SMALLEST_PAYMENT)
                        .map(second -> Arguments.of(first, second)));
    }

    /** An invoice of 100.00 to which these reasons apply, and no other. */
    private static Selection with(EnumSet<LeftOutReason> reasons) {
        PaymentMethod own = reasons.contains(LeftOutReason.NOT_SET_UP_FOR_ACH)
                ? PaymentMethod.ACH
                : reasons.contains(LeftOutReason.NO_BANK_DETAILS)
                                || reasons.contains(LeftOutReason.BANK_DETAILS_NOT_CONFIRMED)
                        ? PaymentMethod.CREDIT_TRANSFER
                        : PaymentMethod.CHECK;
        PaymentMethod other = own == PaymentMethod.CHECK ? PaymentMethod.CREDIT_TRANSFER : PaymentMethod.CHECK;
        Money amount = Money.ofMinor(10_000, reasons.contains(LeftOutReason.OTHER_CURRENCY) ? "EUR" : "USD");
        LocalDate dated = CHECK_DATE.plusDays(reasons.contains(LeftOutReason.DATED_AFTER_CHECK_DATE) ? 1 : -10);
        LocalDate arrived = CHECK_DATE.plusDays(reasons.contains(LeftOutReason.ENTERED_LATER) ? 1 : -10);
        OpenInvoice invoice = new OpenInvoice(
                new InvoiceId(1),
                "R-1",
                dated,
                CHECK_DATE,
                LedgerDays.from(arrived),
                amount,
                amount,
                Discount.whole(amount, BigDecimal.ZERO, null));
        Payee payee = new Payee(
                new VendorId(7),
                "V7",
                "Vendor 7",
                "Yard",
                3,
                own,
                reasons.contains(LeftOutReason.HELD_VENDOR) ? "dispute" : null,
                70,
                "Vendor 7",
                "",
                new Reach(
                        !reasons.contains(LeftOutReason.NO_ADDRESS),
                        reasons.contains(LeftOutReason.NO_BANK_DETAILS) ? null : BankDetails.Kind.IBAN,
                        !reasons.contains(LeftOutReason.BANK_DETAILS_NOT_CONFIRMED)));
        Candidate candidate = new Candidate(
                invoice,
                payee,
                false,
                reasons.contains(LeftOutReason.HELD_INVOICE) ? "wrong sizes" : null,
                reasons.contains(LeftOutReason.IN_ANOTHER_BATCH) ? "Yard week" : null);
        Criteria criteria = new Criteria(
                USD,
                reasons.contains(LeftOutReason.OTHER_METHOD) ? other : own,
                CHECK_DATE,
                CHECK_DATE,
                day("2026-11-20"),
                day("2026-11-27"),
                0,
                Filters.NONE,
                paying(
                        true,
                        reasons.contains(LeftOutReason.UNDER_SMALLEST_PAYMENT) ? "100.01" : null,
                        reasons.contains(LeftOutReason.BEYOND_THE_CASH_LINE) ? "99.99" : null,
                        CashWay.STOP_AT_THE_LINE));
        List<CreditCandidate> credits = reasons.contains(LeftOutReason.COVERED_BY_CREDITS)
                ? List.of(credit(openCredit(9, "150", "2026-11-01"), payee))
                : List.of();
        Set<InvoiceId> out = reasons.contains(LeftOutReason.TAKEN_OUT_BY_HAND) ? Set.of(invoice.id()) : Set.of();
        return Selection.of(criteria, List.of(candidate), credits, new Marks(out, Set.of()));
    }

    @ParameterizedTest(name = "{0} before {1}")
    @MethodSource("pairs")
    void leavesOutWithTheFirstReasonThatApplies(LeftOutReason first, LeftOutReason second) {
        assertThat(with(EnumSet.noneOf(LeftOutReason.class)).taken()).hasSize(1);
        Selection selection = with(EnumSet.of(first, second));
        assertThat(selection.taken()).isEmpty();
        assertThat(selection.leftOut())
                .extracting(Selection.LeftOutTotal::reason)
                .containsExactly(first);
    }

    /** Law L2 by days, not by months, and the day is named. */
    @Test
    void anInvoiceAndACreditOfALaterDayOfTheMonthWait() {
        Payee payee = payee(7, 3);
        OpenInvoice invoice = new OpenInvoice(
                new InvoiceId(2),
                "R-2",
                day("2026-11-01"),
                CHECK_DATE,
                LedgerDays.from(day("2026-11-20")),
                usd("100"),
                usd("100"),
                PLAIN.discount());
        OpenInvoice broughtBack = new OpenInvoice(
                new InvoiceId(3),
                "R-3",
                day("2026-11-01"),
                CHECK_DATE,
                new LedgerDays(day("2026-11-01"), day("2026-11-14")),
                usd("100"),
                usd("100"),
                PLAIN.discount());
        OpenCredit credit = new OpenCredit(
                new InvoiceId(9), "C-9", day("2026-11-01"), LedgerDays.from(day("2026-11-20")), usd("10"), null);
        Selection selection = Selection.of(
                criteria(paying(true, null, null, CashWay.STOP_AT_THE_LINE)),
                List.of(of(PLAIN, payee), of(invoice, payee), of(broughtBack, payee)),
                List.of(credit(credit, payee)),
                Marks.NONE);
        assertThat(selection.toPay()).isEqualTo(usd("100"));
        assertThat(selection.rows())
                .extracting(row -> row.decision() instanceof Decision.LeftOut out ? out.inWords() : "taken")
                .containsExactly(
                        "taken",
                        "entered later: in the ledger from Fri 20 Nov 2026",
                        "entered later: open again from Sat 14 Nov 2026");
        assertThat(selection.creditsOut())
                .extracting(Selection.CreditOut::why)
                .containsExactly("entered later: in the ledger from Fri 20 Nov 2026");
    }

    @Test
    void aCreditNotUsableYetWaits() {
        Payee payee = payee(7, 3);
        OpenCredit credit = new OpenCredit(
                new InvoiceId(9),
                "C-9",
                day("2026-11-01"),
                LedgerDays.from(day("2026-11-01")),
                usd("10"),
                day("2026-11-30"));
        Selection selection = Selection.of(
                criteria(paying(true, null, null, CashWay.STOP_AT_THE_LINE)),
                List.of(of(PLAIN, payee)),
                List.of(credit(credit, payee)),
                Marks.NONE);
        assertThat(selection.creditsOut())
                .extracting(Selection.CreditOut::why)
                .containsExactly("not usable yet: from Mon 30 Nov 2026");
    }

    /** With one claim per invoice a credit goes to the earliest due that can use all of it, else to the largest. */
    @Test
    void withAClaimPerInvoiceACreditIsUsedWhereItFits() {
        Payee payee = payee(7, 3);
        List<Candidate> two = List.of(
                of(invoice(1, "100", "2026-10-01", "2026-11-01", "0", null), payee),
                of(invoice(2, "300", "2026-10-01", "2026-11-02", "0", null), payee));
        List<CreditCandidate> credit = List.of(credit(openCredit(9, "250", "2026-10-01"), payee));
        assertThat(Selection.of(perInvoice(null), two, credit, Marks.NONE).claims())
                .extracting(claim -> claim.amount().toString())
                .containsExactlyInAnyOrder("100.00", "50.00");
        List<CreditCandidate> larger = List.of(credit(openCredit(9, "350", "2026-10-01"), payee));
        assertThat(Selection.of(perInvoice(null), two, larger, Marks.NONE).claims())
                .extracting(claim -> claim.amount().toString())
                .containsExactly("100.00");
    }

    /** What its credits make too small to pay gives them back. */
    @Test
    void aClaimLeftOutAsTooSmallUsesNoCredit() {
        Payee payee = payee(7, 3);
        List<Candidate> two = List.of(
                of(invoice(1, "260", "2026-10-01", "2026-11-01", "0", null), payee),
                of(invoice(2, "400", "2026-10-01", "2026-11-02", "0", null), payee));
        List<CreditCandidate> credit = List.of(credit(openCredit(9, "250", "2026-10-01"), payee));
        Selection selection = Selection.of(perInvoice("50"), two, credit, Marks.NONE);
        assertThat(selection.claims())
                .extracting(claim -> claim.amount().toString())
                .containsExactly("150.00");
        assertThat(selection.credited()).isEqualTo(usd("250"));
        assertThat(selection.creditsOut()).isEmpty();
    }

    private static Criteria perInvoice(@Nullable String smallest) {
        return criteria(new Paying(
                true,
                Paying.Grouping.INVOICE,
                ClaimOrder.PAYEE,
                smallest == null ? null : usd(smallest),
                null,
                CashWay.STOP_AT_THE_LINE));
    }

    /** One order for the list and the numbers: whom the paper names, whatever the vendor is called. */
    @Test
    void theOrderOfPayeesIsThatOfThePaper() {
        ClaimOrder.Placed first = new ClaimOrder.Placed("Ash", "V9", 90, usd("1"), "", 5);
        ClaimOrder.Placed accent = new ClaimOrder.Placed("Île de Gorse", "V1", 10, usd("1"), "", 4);
        ClaimOrder.Placed second = new ClaimOrder.Placed("inner Harbour", "V2", 20, usd("100"), "", 3);
        assertThat(Stream.of(second, accent, first)
                        .sorted(Comparator.comparing(ClaimOrder.PAYEE::key))
                        .toList())
                .containsExactly(first, accent, second);
        assertThat(ClaimOrder.AMOUNT.key(second)).isLessThan(ClaimOrder.AMOUNT.key(first));
        assertThat(ClaimOrder.VENDOR_NUMBER.key(accent)).isLessThan(ClaimOrder.VENDOR_NUMBER.key(second));
    }

    @Test
    void partPayAtTheLineSpendsTheLimitExactly() {
        String[] amounts = {"4200", "3979.59", "2551.02", "1700", "3673.47"};
        List<Candidate> five = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            boolean earns = i == 1 || i == 2 || i == 4;
            five.add(of(
                    invoice(
                            i + 1,
                            amounts[i],
                            "2026-11-05",
                            "2026-11-19",
                            earns ? "2" : "0",
                            earns ? "2026-11-15" : null),
                    payee(i + 1, i + 1)));
        }
        Selection part =
                Selection.of(criteria(paying(false, null, "10000", CashWay.PART_PAY)), five, List.of(), Marks.NONE);
        assertThat(part.toPay()).isEqualTo(usd("10000"));
        assertThat(part.claims())
                .extracting(claim -> claim.amount().toString())
                .containsExactlyInAnyOrder("4,200.00", "3,900.00", "1,900.00");
        Selection best = Selection.of(
                criteria(paying(false, null, "10000", CashWay.MOST_DISCOUNT)), five, List.of(), Marks.NONE);
        assertThat(best.toPay()).isEqualTo(usd("10000"));
        assertThat(best.saved()).isEqualTo(usd("204.08"));
    }

    @Test
    void rejectsACheckDateOutsideTodayAndSixtyDays() {
        LocalDate today = day("2026-11-12");
        assertThat(Criteria.checkDate(today, today)).isEqualTo(today);
        assertThat(Criteria.checkDate(today.plusDays(60), today)).isEqualTo(day("2027-01-11"));
        for (String outside : List.of("2026-11-11", "2027-01-12")) {
            assertThatThrownBy(() -> Criteria.checkDate(day(outside), today))
                    .isInstanceOf(Refusal.class)
                    .hasMessageContaining("between today");
        }
    }

    @Test
    void takesOutByHandOnlyWhatCouldBeTaken() {
        Candidate held =
                new Candidate(invoice(5, "10", "2026-10-01", "2026-11-01", "0", null), payee(7, 3), false, "x", null);
        Marks out = new Marks(Set.of(new InvoiceId(1), new InvoiceId(5)), Set.of());
        Selection selection = Selection.of(CRITERIA, List.of(of(PLAIN), held), List.of(), out);
        assertThat(selection.leftOut().stream().map(Selection.LeftOutTotal::reason))
                .containsExactly(LeftOutReason.HELD_INVOICE, LeftOutReason.TAKEN_OUT_BY_HAND);
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
    void saysWhyAnInvoiceWasNeverLookedAt() {
        assertThat(CRITERIA.whyNotAsked(of(PLAIN))).isEmpty();
        assertThat(CRITERIA.whyNotAsked(of(invoice(1, "100", "2026-11-05", "2026-12-05", "0", null))))
                .hasValue(new Criteria.NotAsked(
                        true, "due on Sat 5 Dec 2026, and it loses no discount before the next run"));
    }

    @Test
    void rejectsANextRunThatIsNotLater() {
        assertThatThrownBy(() -> new Criteria(
                        USD,
                        PaymentMethod.CHECK,
                        CHECK_DATE,
                        CHECK_DATE,
                        CHECK_DATE,
                        CHECK_DATE,
                        0,
                        Filters.NONE,
                        Paying.PLAIN))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("must be after the check date");
    }

    @Test
    void rejectsALimitBelowZero() {
        assertThatThrownBy(() -> paying(false, null, "-1", CashWay.PASS_OVER)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> paying(false, "-1", null, CashWay.PASS_OVER)).isInstanceOf(Refusal.class);
    }

    @Test
    void aLimitOfZeroTakesNothingAndSaysWhy() {
        Selection selection = select(criteria(paying(false, null, "0", CashWay.PART_PAY)), of(PLAIN));
        assertThat(selection.claims()).isEmpty();
        assertThat(selection.leftOut())
                .extracting(Selection.LeftOutTotal::reason)
                .containsExactly(LeftOutReason.BEYOND_THE_CASH_LINE);
        assertThat(selection.lineAt()).hasValue(0);
    }

    @Test
    void anOwnCheckStandsAloneAndIsNotReducedByCredits() {
        Payee payee = payee(1, 3);
        Candidate own = ownCheck(invoice(2, "50", "2026-10-20", "2026-11-01", "0", null), payee);
        Selection selection = Selection.of(
                criteria(paying(true, null, null, CashWay.STOP_AT_THE_LINE)),
                List.of(of(PLAIN, payee), own),
                List.of(credit(openCredit(9, "30", "2026-10-01"), payee)),
                Marks.NONE);
        assertThat(selection.claims())
                .extracting(claim -> claim.amount().toString())
                .containsExactlyInAnyOrder("70.00", "50.00");
        assertThat(selection.credited()).isEqualTo(usd("30"));
    }

    @Test
    void creditsThatCoverEverythingAreProposedAsAnOffset() {
        Payee payee = payee(1, 3);
        Selection selection = Selection.of(
                criteria(paying(true, null, null, CashWay.STOP_AT_THE_LINE)),
                List.of(
                        of(invoice(1, "800", "2026-04-01", "2026-05-01", "0", null), payee),
                        of(invoice(2, "300", "2026-04-20", "2026-05-20", "0", null), payee)),
                List.of(
                        credit(openCredit(8, "250", "2026-03-01"), payee),
                        credit(openCredit(9, "900", "2026-03-02"), payee)),
                Marks.NONE);
        assertThat(selection.claims()).isEmpty();
        assertThat(selection.leftOut())
                .containsExactly(new Selection.LeftOutTotal(LeftOutReason.COVERED_BY_CREDITS, 2, List.of(usd("1100"))));
        assertThat(selection.offsets()).singleElement().satisfies(offset -> {
            assertThat(offset.settling().credit()).isEqualTo(usd("1100"));
            assertThat(offset.settling().uses())
                    .extracting(use -> use.used().toString())
                    .containsExactly("250.00", "850.00");
        });
    }

    @Test
    void aClaimUnderTheSmallestPaymentStaysOutUnlessTakenByHand() {
        Criteria criteria = criteria(paying(false, "100.01", null, CashWay.STOP_AT_THE_LINE));
        assertThat(select(criteria, of(PLAIN)).leftOut())
                .extracting(Selection.LeftOutTotal::reason)
                .containsExactly(LeftOutReason.UNDER_SMALLEST_PAYMENT);
        Marks in = new Marks(Set.of(), Set.of(PLAIN.id()));
        assertThat(Selection.of(criteria, List.of(of(PLAIN)), List.of(), in).claims())
                .hasSize(1);
    }

    /** The strongest key of a claim's invoices: priority, discount date, due date, invoice date, entry number. */
    @Test
    void cashGoesByTheStrongestInvoice() {
        Selection selection = select(
                CRITERIA,
                of(invoice(1, "1", "2026-10-01", "2026-11-02", "0", null), payee(1, 3)),
                of(invoice(2, "1", "2026-11-01", "2026-12-01", "2", "2026-11-14"), payee(2, 3)),
                of(invoice(3, "1", "2026-10-01", "2026-11-01", "0", null), payee(3, 3)),
                of(invoice(4, "1", "2026-10-01", "2026-11-19", "0", null), payee(4, 1)),
                of(invoice(5, "1", "2026-09-01", "2026-11-02", "0", null), payee(5, 3)),
                of(invoice(6, "1", "2026-10-20", "2026-11-01", "0", null), payee(1, 3)));
        assertThat(selection.queue().stream()
                        .map(queued -> queued.claim().payee().vendor().value()))
                .containsExactly(4L, 2L, 3L, 1L, 5L);
    }

    @Test
    void partPaymentGoesByDueDateWithinTheClaimAndGivesUnusedCreditsBack() {
        Payee payee = payee(1, 3);
        Selection selection = Selection.of(
                criteria(paying(true, null, "120", CashWay.PART_PAY)),
                List.of(
                        of(invoice(1, "100", "2026-10-20", "2026-11-19", "0", null), payee),
                        of(invoice(2, "100", "2026-10-01", "2026-11-02", "0", null), payee),
                        of(invoice(3, "100", "2026-10-25", "2026-11-20", "0", null), payee)),
                List.of(credit(openCredit(9, "30", "2026-10-01"), payee)),
                Marks.NONE);
        assertThat(selection.claims()).singleElement().satisfies(claim -> {
            assertThat(claim.amount()).isEqualTo(usd("120"));
            assertThat(claim.rows())
                    .extracting(row -> row.candidate().invoice().id().value())
                    .containsExactlyInAnyOrder(1L, 2L);
            assertThat(claim.credits())
                    .singleElement()
                    .satisfies(use -> assertThat(use.used()).isEqualTo(usd("30")));
        });
        assertThat(selection.leftOut())
                .extracting(Selection.LeftOutTotal::count)
                .containsExactly(1);
    }

    /**
     * Over any candidates, credits, limits and ways: every candidate is counted once; each claim is Σ of its rows and
     * what credits take off; the limit holds; a payee without own checks has one claim; no credit is used twice.
     */
    @Test
    void tallyHoldsForAnyCandidates() {
        Random random = new Random(11);
        for (int round = 0; round < 600; round++) {
            List<Candidate> candidates = new ArrayList<>();
            List<CreditCandidate> credits = new ArrayList<>();
            for (int i = 0; i < random.nextInt(40); i++) {
                OpenInvoice invoice = invoice(
                        i,
                        1 + random.nextInt(900) + "." + (10 + random.nextInt(90)),
                        "2026-11-" + (10 + random.nextInt(8)),
                        "2026-11-" + (10 + random.nextInt(12)),
                        "2",
                        "2026-11-" + (10 + random.nextInt(19)));
                Payee payee = payee(random.nextInt(5), 1 + random.nextInt(3));
                candidates.add(new Candidate(
                        invoice,
                        payee,
                        random.nextInt(9) == 0,
                        random.nextInt(6) == 0 ? "held" : null,
                        random.nextInt(6) == 0 ? "other" : null));
            }
            for (int i = 0; i < random.nextInt(6); i++) {
                credits.add(credit(
                        openCredit(1_000 + i, String.valueOf(1 + random.nextInt(600)), "2026-11-01"),
                        payee(random.nextInt(5), 3)));
            }
            Set<InvoiceId> in = new HashSet<>();
            if (random.nextBoolean() && !candidates.isEmpty()) {
                in.add(candidates
                        .get(random.nextInt(candidates.size()))
                        .invoice()
                        .id());
            }
            CashWay way = CashWay.values()[random.nextInt(4)];
            String limit = random.nextInt(3) == 0 ? null : String.valueOf(random.nextInt(4_000));
            Criteria criteria =
                    criteria(paying(random.nextBoolean(), random.nextInt(3) == 0 ? "50" : null, limit, way));
            Selection selection = Selection.of(criteria, candidates, credits, new Marks(Set.of(), in));
            check(selection, candidates, limit == null || !in.isEmpty() ? null : usd(limit));
        }
    }

    private static void check(Selection selection, List<Candidate> candidates, @Nullable Money limit) {
        int out = selection.leftOut().stream()
                .mapToInt(Selection.LeftOutTotal::count)
                .sum();
        assertThat(selection.taken().size() + out).isEqualTo(candidates.size());
        Money claims = Money.zero(USD);
        List<Long> used = new ArrayList<>();
        for (Selection.ClaimDraft claim : selection.claims()) {
            Money cash = Money.zero(USD);
            Money credit = cash;
            for (Selection.Row row : claim.rows()) {
                Decision.Taken taken = (Decision.Taken) row.decision();
                cash = cash.plus(taken.payment().cash());
                credit = credit.plus(taken.credit());
                assertThat(taken.credit().plus(taken.payment().settled()))
                        .isLessThanOrEqualTo(row.candidate().invoice().open());
            }
            assertThat(claim.amount()).isEqualTo(cash);
            assertThat(claim.amount().isPositive()).isTrue();
            assertThat(claim.credits().stream()
                            .map(leveltally.core.invoices.Settling.Use::used)
                            .reduce(Money.zero(USD), Money::plus))
                    .isEqualTo(credit);
            claim.credits().forEach(use -> used.add(use.credit().id().value()));
            claims = claims.plus(claim.amount());
        }
        assertThat(used).doesNotHaveDuplicates();
        assertThat(claims).isEqualTo(selection.toPay());
        assertThat(selection.claims().stream()
                        .map(claim -> ClaimOrder.PAYEE.key(claim.placed()))
                        .toList())
                .isSorted();
        if (limit != null) {
            assertThat(selection.toPay()).isLessThanOrEqualTo(limit);
        }
        assertThat(selection.claims().stream()
                        .filter(claim -> !claim.apart())
                        .map(claim -> claim.payee().remitTo()))
                .doesNotHaveDuplicates();
    }
}
