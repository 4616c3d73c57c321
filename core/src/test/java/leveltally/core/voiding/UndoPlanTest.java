package leveltally.core.voiding;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;
import leveltally.core.money.ProRata;
import leveltally.core.payments.PaymentState;
import leveltally.core.voiding.Outcome.BringBackHeld;
import leveltally.core.voiding.Outcome.Cancel;
import leveltally.core.voiding.Outcome.Line;
import org.junit.jupiter.api.Test;

/** What undoing a payment writes, by what becomes of each of its lines. */
class UndoPlanTest {
    private static final AccountId CASH = new AccountId(1010);
    private static final AccountId PAYABLES = new AccountId(2000);
    private static final AccountId DISCOUNTS = new AccountId(4900);
    private static final AccountId FUEL = new AccountId(5200);
    private static final AccountId FREIGHT = new AccountId(5300);
    private static final AccountId RECOVERED = new AccountId(4950);
    private static final LocalDate PAID = LocalDate.of(2026, 1, 28);
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 10);
    private static final InvoiceId FIRST = new InvoiceId(1);
    private static final InvoiceId SECOND = new InvoiceId(2);
    private static final InvoiceId CREDIT = new InvoiceId(9);

    private static Money usd(String amount) {
        return Money.parse(amount, Currency.getInstance("USD"));
    }

    private static Settled settled(long id, InvoiceId item, String amount) {
        InvoiceKind kind = item.equals(CREDIT) ? InvoiceKind.CREDIT : InvoiceKind.INVOICE;
        return new Settled(new SettlementId(id), item, kind, SettlementKind.CASH, usd(amount));
    }

    private static UndoPlan.Posted check(List<JournalLine> lines, Settled... settled) {
        return new UndoPlan.Posted(
                "Check 10012",
                true,
                PaymentState.OUTSTANDING,
                new JournalEntry(PAID, "Check 10012", lines),
                List.of(settled),
                List.of());
    }

    /** 1,225.00 and 25.00 of discount for 1,250.00. */
    private static final UndoPlan.Posted OF_JANUARY = check(
            List.of(
                    JournalLine.debit(PAYABLES, usd("1250.00")),
                    JournalLine.credit(CASH, usd("1225.00")),
                    JournalLine.credit(DISCOUNTS, usd("25.00"))),
            settled(1, FIRST, "1225.00"),
            settled(2, FIRST, "25.00"));

    @Test
    void broughtBackItIsTheEntryWithItsSidesExchangedOnAnOpenDay() {
        UndoPlan plan = UndoPlan.of(OF_JANUARY, Map.of(), TODAY, TODAY);
        assertThat(plan.entry().ledgerDate()).isEqualTo(TODAY);
        assertThat(plan.entry().lines())
                .containsExactly(
                        JournalLine.debit(CASH, usd("1225.00")),
                        JournalLine.debit(DISCOUNTS, usd("25.00")),
                        JournalLine.credit(PAYABLES, usd("1250.00")));
        assertThat(plan.openAgain()).isEqualTo(Map.of(FIRST, usd("1250.00")));
        assertThat(plan.cancelled()).isEmpty();
    }

    @Test
    void heldItIsOpenAndSaysWhy() {
        UndoPlan plan =
                UndoPlan.of(OF_JANUARY, Map.of(FIRST, new BringBackHeld("sent to the wrong firm")), TODAY, TODAY);
        assertThat(plan.held()).isEqualTo(Map.of(FIRST, "sent to the wrong firm"));
        assertThat(plan.openAgain()).containsKey(FIRST);
    }

    @Test
    void cancelledAgainstItsOwnLinesTheyShareItAndTheCentLeftGoesToTheLargest() {
        Cancel own = new Cancel(PAYABLES, List.of(new Line(FUEL, usd("833.33")), new Line(FREIGHT, usd("416.67"))));
        UndoPlan plan = UndoPlan.of(OF_JANUARY, Map.of(FIRST, own), TODAY, TODAY);
        assertThat(plan.entry().lines())
                .containsExactlyInAnyOrder(
                        JournalLine.debit(CASH, usd("1225.00")),
                        JournalLine.debit(DISCOUNTS, usd("25.00")),
                        JournalLine.credit(FUEL, usd("833.33")),
                        JournalLine.credit(FREIGHT, usd("416.67")));
        assertThat(plan.cancelled()).isEqualTo(Map.of(FIRST, usd("1250.00")));
        assertThat(plan.openAgain()).isEmpty();
        assertThat(ProRata.of(usd("100.00"), List.of(usd("1.00"), usd("1.00"), usd("1.00"))))
                .containsExactly(usd("33.34"), usd("33.33"), usd("33.33"));
    }

    @Test
    void cancelledAgainstOneAccountThisYearsExpenseDoesNotMove() {
        Cancel recovered = new Cancel(PAYABLES, List.of(new Line(RECOVERED, usd("1.00"))));
        assertThat(UndoPlan.of(OF_JANUARY, Map.of(FIRST, recovered), TODAY, TODAY)
                        .entry()
                        .lines())
                .contains(JournalLine.credit(RECOVERED, usd("1250.00")))
                .noneMatch(line -> line.account().equals(PAYABLES));
    }

    @Test
    void ofTwoInvoicesEachHasItsOwnOutcomeAndACreditIsOpenAgainBesideACancelledInvoice() {
        // 800.00 and 300.00 less a credit of 250.00: 850.00 of cash
        UndoPlan.Posted check = check(
                List.of(JournalLine.debit(PAYABLES, usd("850.00")), JournalLine.credit(CASH, usd("850.00"))),
                settled(1, FIRST, "550.00"),
                settled(2, FIRST, "250.00"),
                settled(3, SECOND, "300.00"),
                settled(4, CREDIT, "250.00"));
        Cancel own = new Cancel(PAYABLES, List.of(new Line(FUEL, usd("900.00")), new Line(FREIGHT, usd("-100.00"))));
        UndoPlan plan = UndoPlan.of(check, Map.of(FIRST, own), TODAY, TODAY);
        assertThat(plan.entry().lines())
                .containsExactlyInAnyOrder(
                        JournalLine.debit(CASH, usd("850.00")),
                        JournalLine.debit(FREIGHT, usd("100.00")),
                        // 300.00 is owed again, less the credit of 250.00
                        JournalLine.credit(PAYABLES, usd("50.00")),
                        JournalLine.credit(FUEL, usd("900.00")));
        assertThat(plan.openAgain()).isEqualTo(Map.of(SECOND, usd("300.00"), CREDIT, usd("250.00")));
    }

    /** Whatever is cancelled: the entry balances, and what payables gains is what is open again, less credits (L1, L11). */
    @Test
    void payablesGainWhatIsOpenAgain() {
        Random random = new Random(12);
        for (int round = 0; round < 300; round++) {
            List<Settled> rows = new ArrayList<>();
            Map<InvoiceId, Outcome> outcomes = new HashMap<>();
            long cash = 0;
            for (int i = 1; i <= 1 + random.nextInt(4); i++) {
                long minor = 1 + random.nextInt(200_000);
                cash += minor;
                InvoiceId item = new InvoiceId(i);
                rows.add(settled(i, item, Money.ofMinor(minor, "USD").plain()));
                if (random.nextBoolean()) {
                    outcomes.put(
                            item,
                            new Cancel(
                                    PAYABLES,
                                    List.of(
                                            new Line(FUEL, Money.ofMinor(1 + random.nextInt(9_999), "USD")),
                                            new Line(FREIGHT, Money.ofMinor(1 + random.nextInt(9_999), "USD")),
                                            new Line(RECOVERED, Money.ofMinor(-random.nextInt(2), "USD")))));
                }
            }
            Money paid = Money.ofMinor(cash, "USD");
            UndoPlan plan = UndoPlan.of(
                    check(
                            List.of(JournalLine.debit(PAYABLES, paid), JournalLine.credit(CASH, paid)),
                            rows.toArray(Settled[]::new)),
                    outcomes,
                    TODAY,
                    TODAY);
            Money gained = plan.entry().lines().stream()
                    .filter(line -> line.account().equals(PAYABLES))
                    .map(line -> line.side() == JournalLine.Side.CREDIT
                            ? line.amount()
                            : line.amount().negated())
                    .reduce(usd("0.00"), Money::plus);
            assertThat(gained).isEqualTo(plan.openAgain().values().stream().reduce(usd("0.00"), Money::plus));
        }
    }

    @Test
    void rejectsAnOutcomeOfWhatItNeverSettledAClearedCheckAndADayOutside() {
        assertThatThrownBy(() -> UndoPlan.of(OF_JANUARY, Map.of(SECOND, new Outcome.BringBack()), TODAY, TODAY))
                .hasMessageContaining("settled nothing of entry 2");
        UndoPlan.Posted cleared = new UndoPlan.Posted(
                "Check 10012", true, PaymentState.CLEARED, OF_JANUARY.entry(), OF_JANUARY.settled(), List.of());
        assertThatThrownBy(() -> UndoPlan.of(cleared, Map.of(), TODAY, TODAY))
                .hasMessageContaining("cleared at the bank");
        assertThatThrownBy(() -> UndoPlan.of(OF_JANUARY, Map.of(), PAID.minusDays(1), TODAY))
                .hasMessageContaining("lies outside");
    }

    /** A credit lowers what is owed: cancelling it as an invoice is would write a wrong entry. */
    @Test
    void rejectsTheCancellationOfACredit() {
        UndoPlan.Posted check = check(
                List.of(JournalLine.debit(PAYABLES, usd("550.00")), JournalLine.credit(CASH, usd("550.00"))),
                settled(1, FIRST, "550.00"),
                settled(2, FIRST, "250.00"),
                settled(3, CREDIT, "250.00"));
        Cancel cancel = new Cancel(PAYABLES, List.of(new Line(FUEL, usd("250.00"))));
        assertThatThrownBy(() -> UndoPlan.of(check, Map.of(CREDIT, cancel), TODAY, TODAY))
                .hasMessageContaining("is a credit that check 10012 used");
    }

    @Test
    void whatIsNoPaperIsReversedEvenAfterTheBankPaidIt() {
        UndoPlan.Posted wire = new UndoPlan.Posted(
                "Wire W-88", false, PaymentState.CLEARED, OF_JANUARY.entry(), OF_JANUARY.settled(), List.of());
        UndoPlan plan = UndoPlan.of(wire, Map.of(), TODAY, TODAY);
        assertThat(plan.becomes()).isEqualTo(PaymentState.REVERSED);
        assertThat(plan.entry().text()).isEqualTo("Reversal of wire W-88");
    }

    /** A check of December, its year locked, voided in February to recovered payments: no expense moves but the chosen account. */
    @Test
    void ofALockedYearOnlyTheChosenAccountMoves() {
        LocalDate december = LocalDate.of(2025, 12, 15);
        LocalDate february = LocalDate.of(2026, 2, 20);
        UndoPlan.Posted check = new UndoPlan.Posted(
                "Check 9980",
                true,
                PaymentState.OUTSTANDING,
                new JournalEntry(
                        december,
                        "Check 9980",
                        List.of(JournalLine.debit(PAYABLES, usd("640.00")), JournalLine.credit(CASH, usd("640.00")))),
                List.of(settled(1, FIRST, "640.00")),
                List.of());
        Cancel recovered = new Cancel(PAYABLES, List.of(new Line(RECOVERED, usd("1.00"))));
        UndoPlan plan = UndoPlan.of(check, Map.of(FIRST, recovered), february, february);
        assertThat(plan.needsSecond()).isTrue();
        assertThat(plan.entry().lines())
                .containsExactly(JournalLine.debit(CASH, usd("640.00")), JournalLine.credit(RECOVERED, usd("640.00")));
        assertThat(plan.chosen()).containsExactly(new UndoPlan.Chosen(FIRST, PAYABLES, RECOVERED, usd("640.00")));
        Months months = Months.of(
                Map.of(new Months.Spot(YearMonth.of(2026, 2), CASH, "USD"), usd("-100.00")),
                List.of(check.entry()),
                List.of(plan.entry()));
        assertThat(months.lines())
                .filteredOn(Months.Line::moves)
                .containsExactly(
                        new Months.Line(YearMonth.of(2026, 2), CASH, usd("-100.00"), usd("540.00")),
                        new Months.Line(YearMonth.of(2026, 2), RECOVERED, usd("0.00"), usd("-640.00")));
        assertThat(months.lines())
                .filteredOn(line -> line.month().equals(YearMonth.of(2025, 12)))
                .hasSize(2);
    }

    @Test
    void handedOverExactlyWhatItWasMadeOutForIsOwedToTheStateAndWhatItSettledStays() {
        AccountId unclaimed = new AccountId(2300);
        UndoPlan plan = UndoPlan.handingOver(OF_JANUARY, CASH, unclaimed, TODAY, TODAY);
        assertThat(plan.entry().lines())
                .containsExactly(
                        JournalLine.debit(CASH, usd("1225.00")), JournalLine.credit(unclaimed, usd("1225.00")));
        assertThat(plan.becomes()).isEqualTo(PaymentState.VOIDED);
        assertThat(plan.mirrored()).isEmpty();
        assertThat(plan.openAgain()).isEmpty();
        assertThat(plan.needsSecond()).isTrue();
        // what was chosen explains all the difference to the entry with its sides exchanged (law L4)
        assertThat(plan.chosen())
                .containsExactlyInAnyOrder(
                        new UndoPlan.Chosen(null, PAYABLES, unclaimed, usd("1250.00")),
                        new UndoPlan.Chosen(null, DISCOUNTS, unclaimed, usd("-25.00")));
        UndoPlan.Posted cleared = new UndoPlan.Posted(
                "Check 10012", true, PaymentState.CLEARED, OF_JANUARY.entry(), OF_JANUARY.settled(), List.of());
        assertThatThrownBy(() -> UndoPlan.handingOver(cleared, CASH, unclaimed, TODAY, TODAY))
                .hasMessageContaining("cleared at the bank");
    }
}
