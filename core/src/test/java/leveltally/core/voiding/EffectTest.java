package leveltally.core.voiding;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.Settled;
import leveltally.core.invoices.SettlementId;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.Reportable;
import leveltally.core.voiding.Effect.Becomes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What somebody who undoes a payment is shown beside its entry. */
class EffectTest {
    private static final AccountId CASH = new AccountId(1010);
    private static final AccountId PAYABLES = new AccountId(2000);
    private static final AccountId DISCOUNTS = new AccountId(4900);
    private static final InvoiceId INVOICE = new InvoiceId(1);
    private static final InvoiceId CREDIT = new InvoiceId(9);

    private static Settled row(long id, InvoiceId item, InvoiceKind of, SettlementKind by, String amount) {
        return new Settled(new SettlementId(id), item, of, by, usd(amount));
    }

    private static Effect.Before before(InvoiceId id, String amount, String open, String atPar, String taken) {
        BigDecimal rate = id.equals(CREDIT) ? BigDecimal.ZERO : new BigDecimal("0.02");
        LocalDate until = id.equals(CREDIT) ? null : day("2026-01-30");
        return new Effect.Before(
                id, "R-" + id.value(), usd(amount), usd(open), usd(amount), rate, until, usd(atPar), usd(taken));
    }

    private static UndoPlan.Posted posted(List<JournalLine> lines, Settled... rows) {
        return new UndoPlan.Posted(
                "Check 1",
                true,
                PaymentState.OUTSTANDING,
                new JournalEntry(day("2026-01-28"), "Check 1", lines),
                List.of(rows),
                List.of());
    }

    /** 500.00 of 1,250.00 at 2% with 10.20 of discount; 739.80 stayed open. */
    private static final UndoPlan.Posted PART = posted(
            List.of(
                    JournalLine.debit(PAYABLES, usd("510.20")),
                    JournalLine.credit(CASH, usd("500.00")),
                    JournalLine.credit(DISCOUNTS, usd("10.20"))),
            row(1, INVOICE, InvoiceKind.INVOICE, SettlementKind.CASH, "500.00"),
            row(2, INVOICE, InvoiceKind.INVOICE, SettlementKind.DISCOUNT, "10.20"));

    private static Effect effect(
            UndoPlan.Posted of, Map<InvoiceId, Outcome> outcomes, String on, Effect.Before... items) {
        UndoPlan plan = UndoPlan.of(of, outcomes, day(on), day(on));
        Map<InvoiceId, Effect.Before> before = new java.util.HashMap<>();
        for (Effect.Before item : items) {
            before.put(item.id(), item);
        }
        return Effect.of(plan, before, day(on), 0, Effect.OnYear.FALLS);
    }

    @ParameterizedTest
    @CsvSource({"2026-01-29, false, 0", "2026-01-30, false, 0", "2026-01-31, true, 10.20", "2026-03-10, true, 10.20"})
    void ofAPartPaymentTheDiscountComesBackAndLivesUntilItsDay(String on, boolean lost, String amount) {
        Effect effect = effect(PART, Map.of(), on, before(INVOICE, "1250.00", "739.80", "0.00", "10.20"));
        assertThat(effect.items())
                .containsExactly(new Effect.OnItem(
                        INVOICE,
                        "R-1",
                        Becomes.OPEN,
                        usd("510.20"),
                        usd("739.80"),
                        usd("1250.00"),
                        usd("10.20"),
                        lost));
        assertThat(effect.discountLost()).isEqualTo(usd(amount));
    }

    @Test
    void whatIsCancelledStaysAsOpenAsItWasAndLosesNoDiscount() {
        Outcome cancel = new Outcome.Cancel(PAYABLES, List.of(new Outcome.Line(new AccountId(5200), usd("1.00"))));
        Effect effect = effect(
                PART, Map.of(INVOICE, cancel), "2026-03-10", before(INVOICE, "1250.00", "739.80", "0.00", "10.20"));
        assertThat(effect.items().get(0).openAfter()).isEqualTo(usd("739.80"));
        assertThat(effect.items().get(0).becomes()).isEqualTo(Becomes.CANCELLED);
        assertThat(effect.discountLost()).isEqualTo(usd("0"));
    }

    /** 800.00 at 2% with a credit of 250.00: discount 11.00, cash 539.00. */
    @Test
    void aCreditIsFreeAgainBesideItsInvoice() {
        UndoPlan.Posted check = posted(
                List.of(
                        JournalLine.debit(PAYABLES, usd("550.00")),
                        JournalLine.credit(CASH, usd("539.00")),
                        JournalLine.credit(DISCOUNTS, usd("11.00"))),
                row(1, INVOICE, InvoiceKind.INVOICE, SettlementKind.CASH, "539.00"),
                row(2, INVOICE, InvoiceKind.INVOICE, SettlementKind.DISCOUNT, "11.00"),
                row(3, INVOICE, InvoiceKind.INVOICE, SettlementKind.CREDIT, "250.00"),
                row(4, CREDIT, InvoiceKind.CREDIT, SettlementKind.CREDIT, "250.00"));
        Effect effect = effect(
                check,
                Map.of(INVOICE, new Outcome.BringBackHeld("asked")),
                "2026-01-29",
                before(INVOICE, "800.00", "0.00", "250.00", "11.00"),
                before(CREDIT, "250.00", "0.00", "250.00", "0.00"));
        assertThat(effect.items())
                .extracting(Effect.OnItem::becomes, Effect.OnItem::openAfter, Effect.OnItem::lost)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(Becomes.HELD, usd("800.00"), false),
                        org.assertj.core.groups.Tuple.tuple(Becomes.FREE, usd("250.00"), false));
        Money back = effect.items().get(0).discount();
        assertThat(back).isEqualTo(usd("11.00"));
    }

    @ParameterizedTest
    @CsvSource({
        "NO, 2026-01-28, 2026-03-10, NOT_REPORTED",
        "SERVICES, 2026-01-28, 2026-12-31, FALLS",
        "RENT, 2025-12-31, 2026-01-02, EARLIER_YEAR"
    })
    void aYearFallsOnlyWithinItself(Reportable of, LocalDate checkDate, LocalDate on, Effect.OnYear year) {
        assertThat(Effect.year(of, checkDate, on)).isEqualTo(year);
    }
}
