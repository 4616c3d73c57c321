package leveltally.core.posting;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.usd;
import static leveltally.core.ledger.JournalLine.credit;
import static leveltally.core.ledger.JournalLine.debit;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.OpenHistory;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountLine;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.Period;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Role;
import leveltally.core.terms.PartPayment;
import leveltally.core.voiding.UndoPlan;
import org.junit.jupiter.api.Test;

class EntriesTest {
    private static final AccountId CASH = new AccountId(1010);
    private static final AccountId PAYABLES = new AccountId(2000);
    private static final AccountId DISCOUNTS = new AccountId(4900);

    private static ClaimLine line(long id, String gross, String discount, String credit, String cash) {
        var line = new ClaimLine.Invoice(new InvoiceId(id), "R", usd(gross), usd(discount), usd(credit));
        assertThat(line.cash()).isEqualTo(usd(cash));
        return line;
    }

    private static JournalEntry post(ClaimLine... lines) {
        return PaymentEntry.of(
                day("2026-01-28"),
                "Check 41237",
                List.of(lines),
                Map.of(new InvoiceId(1), PAYABLES, new InvoiceId(2), PAYABLES, new InvoiceId(3), PAYABLES),
                new PaymentEntry.Accounts(CASH, Optional.of(DISCOUNTS)));
    }

    @Test
    void debitsPayablesWithGrossLessCredits() {
        ClaimLine used = new ClaimLine.Credit(new InvoiceId(3), "C", usd("250"));
        JournalEntry entry = post(line(1, "800", "0", "250", "550"), line(2, "300", "0", "0", "300"), used);
        assertThat(entry.lines()).containsExactly(debit(PAYABLES, usd("850")), credit(CASH, usd("850")));
    }

    @Test
    void aDirectPaymentDebitsItsExpenses() {
        var rent = new ClaimLine.Direct(
                "Rent November",
                List.of(
                        new AccountLine(new AccountId(5600), "", usd("900")),
                        new AccountLine(new AccountId(5700), "J-7", usd("120")),
                        new AccountLine(new AccountId(5600), "", usd("-20"))));
        assertThat(post(rent).lines())
                .containsExactly(
                        debit(new AccountId(5600), usd("880")),
                        debit(new AccountId(5700), usd("120")),
                        credit(CASH, usd("1000")));
    }

    @Test
    void aPrepaymentDebitsVendorPrepayments() {
        var ahead = new ClaimLine.Prepayment("PO 118", new AccountId(1400), usd("500"), null);
        assertThat(post(ahead).lines())
                .containsExactly(debit(new AccountId(1400), usd("500")), credit(CASH, usd("500")));
    }

    @Test
    void aKeptLineDebitsWhatTheReplacedOneDid() {
        ClaimLine paid = line(1, "1250", "25", "0", "1225");
        assertThat(post(new ClaimLine.Kept(paid, new ClaimId(9))).lines())
                .isEqualTo(post(paid).lines());
    }

    @Test
    void creditsDiscountsTaken() {
        JournalEntry entry = post(line(1, "1250", "25", "0", "1225"));
        assertThat(entry.lines())
                .containsExactly(debit(PAYABLES, usd("1250")), credit(CASH, usd("1225")), credit(DISCOUNTS, usd("25")));
    }

    @Test
    void aVoidTurnsTheSidesInAnOpenPeriod() {
        JournalEntry paid = post(line(1, "1250", "25", "0", "1225"));
        List<Settled> settled = List.of(
                new Settled(
                        new SettlementId(11), new InvoiceId(1), InvoiceKind.INVOICE, SettlementKind.CASH, usd("1225")),
                new Settled(
                        new SettlementId(12),
                        new InvoiceId(1),
                        InvoiceKind.INVOICE,
                        SettlementKind.DISCOUNT,
                        usd("25")));
        UndoPlan plan = UndoPlan.of(
                new UndoPlan.Posted("Check 41237", true, PaymentState.OUTSTANDING, paid, settled, List.of()),
                Map.of(),
                day("2026-03-10"),
                day("2026-03-10"));
        assertThat(plan.becomes()).isEqualTo(PaymentState.VOIDED);
        assertThat(plan.entry().text()).isEqualTo("Void of check 41237");
        assertThat(plan.mirrored()).isEqualTo(settled);
        assertThat(plan.openAgain()).isEqualTo(Map.of(new InvoiceId(1), usd("1250")));
        assertThat(plan.entry().ledgerDate()).isEqualTo(day("2026-03-10"));
        assertThat(plan.entry().lines())
                .containsExactly(debit(CASH, usd("1225")), debit(DISCOUNTS, usd("25")), credit(PAYABLES, usd("1250")));
    }

    /** Paid 28 Jan with its discount, January locked, voided 10 Mar: January stays, the invoice owes all, without discount. */
    @Test
    void aVoidOverALockedMonthBringsBackAllWithoutTheDiscount() {
        LocalDate paidOn = day("2026-01-28");
        LocalDate voidedOn = day("2026-03-10");
        assertThatThrownBy(() -> new Period(YearMonth.of(2026, 1), true).mustTake(paidOn))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("January 2026 is locked");
        OpenInvoice invoice = invoice(1, "1250", "2026-01-20", "2026-02-19", "2", "2026-01-30");
        PartPayment payment = invoice.payInFull(paidOn, 0);
        assertThat(payment).isEqualTo(new PartPayment(usd("1225"), usd("25")));
        OpenHistory history = new OpenHistory(
                "R-1",
                day("2026-01-20"),
                usd("1250"),
                Map.of(paidOn, payment.settled(), voidedOn, payment.settled().negated()));
        assertThat(history.settleableOn(day("2026-03-09"))).isEqualTo(usd("0"));
        assertThat(history.settleableOn(voidedOn)).isEqualTo(usd("1250"));
        assertThat(invoice.payInFull(voidedOn, 0)).isEqualTo(new PartPayment(usd("1250"), usd("0")));
    }

    @Test
    void rejectsAVoidOutsideItsDaysOrStates() {
        JournalEntry paid = post(line(1, "1250", "25", "0", "1225"));
        var today = day("2026-03-10");
        var outstanding = new UndoPlan.Posted("Check 1", true, PaymentState.OUTSTANDING, paid, List.of(), List.of());
        assertThatThrownBy(() -> UndoPlan.of(outstanding, Map.of(), day("2026-01-27"), today))
                .hasMessageContaining("Tue 27 Jan 2026 lies outside");
        assertThatThrownBy(() -> UndoPlan.of(outstanding, Map.of(), day("2026-03-11"), today))
                .hasMessageContaining("lies outside");
        assertThatThrownBy(() -> UndoPlan.of(outstanding, Map.of(), day("2026-01-28"), day("2026-01-27")))
                .hasMessageContaining("a day that has not come");
        assertThatThrownBy(() -> UndoPlan.of(
                        new UndoPlan.Posted("Check 1", true, PaymentState.CLEARED, paid, List.of(), List.of()),
                        Map.of(),
                        today,
                        today))
                .hasMessageContaining("Take its clearing back");
        assertThatThrownBy(() -> UndoPlan.of(
                        new UndoPlan.Posted("Check 1", true, PaymentState.VOIDED, paid, List.of(), List.of()),
                        Map.of(),
                        today,
                        today))
                .hasMessageContaining("is voided, so it cannot become voided");
    }

    @Test
    void rejectsAnEntryThatDoesNotBalance() {
        var lines = List.of(debit(PAYABLES, usd("10")), credit(CASH, usd("9.99")));
        assertThatThrownBy(() -> new JournalEntry(day("2026-01-01"), "x", lines))
                .hasMessageContaining("off by 1");
    }

    @Test
    void rejectsALineThatPaysLessThanNothing() {
        assertThatThrownBy(() -> line(1, "10", "1", "10", "-1")).hasMessageContaining("pays less than 0");
    }

    @Test
    void rejectsALockedPeriod() {
        Period january = new Period(YearMonth.of(2026, 1), true);
        assertThatThrownBy(() -> january.mustTake(day("2026-01-28")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("January 2026 is locked");
    }

    @Test
    void aMonthThatIsBeingClosedTakesNothingNewExceptOfAController() {
        LocalDate day = day("2026-01-28");
        Period closing = new Period(YearMonth.of(2026, 1), false, true);
        assertThatCode(() -> closing.mustTake(day)).doesNotThrowAnyException();
        assertThatCode(() -> closing.mustTakeNew(day, Set.of(Role.CONTROLLER))).doesNotThrowAnyException();
        assertThatThrownBy(() -> closing.mustTakeNew(day, Set.of(Role.CLERK)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("January 2026 is being closed");
        assertThat(new Period(YearMonth.of(2026, 1), true, true).takesNew(Set.of(Role.CONTROLLER)))
                .isFalse();
        assertThat(new Period(YearMonth.of(2026, 1), false).takesNew(Set.of(Role.CLERK)))
                .isTrue();
    }
}
