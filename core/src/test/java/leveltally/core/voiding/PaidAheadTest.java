package leveltally.core.voiding;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
import org.junit.jupiter.api.Test;

/** 500.00 paid ahead on 2 November, 300.00 of it matched with an invoice of 800.00 on 9 November. */
class PaidAheadTest {
    private static final AccountId CASH = new AccountId(1010);
    private static final AccountId AHEAD = new AccountId(1400);
    private static final AccountId PAYABLES = new AccountId(2000);
    private static final LocalDate PAID = LocalDate.of(2026, 11, 2);
    private static final LocalDate MATCHED = LocalDate.of(2026, 11, 9);
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 12);
    private static final InvoiceId PREPAYMENT = new InvoiceId(7);
    private static final InvoiceId INVOICE = new InvoiceId(8);

    private static Money usd(String amount) {
        return Money.parse(amount, Currency.getInstance("USD"));
    }

    private static PaidAhead ahead(String open) {
        JournalEntry entry = new JournalEntry(
                MATCHED,
                "Offset O-12",
                List.of(JournalLine.debit(PAYABLES, usd("300.00")), JournalLine.credit(AHEAD, usd("300.00"))));
        List<Settled> rows = List.of(
                new Settled(
                        new SettlementId(1), INVOICE, InvoiceKind.INVOICE, SettlementKind.PREPAYMENT, usd("300.00")),
                new Settled(
                        new SettlementId(2),
                        PREPAYMENT,
                        InvoiceKind.PREPAYMENT,
                        SettlementKind.PREPAYMENT,
                        usd("300.00")));
        return new PaidAhead(
                PREPAYMENT,
                "PO-118",
                usd("500.00"),
                usd(open),
                List.of(new PaidAhead.Match(12, "O-12", MATCHED, Optional.of(entry), rows)));
    }

    private static UndoPlan.Posted wire(PaidAhead ahead) {
        return new UndoPlan.Posted(
                "Wire W-88",
                false,
                PaymentState.OUTSTANDING,
                new JournalEntry(
                        PAID,
                        "Wire W-88",
                        List.of(JournalLine.debit(AHEAD, usd("500.00")), JournalLine.credit(CASH, usd("500.00")))),
                List.of(),
                List.of(ahead));
    }

    @Test
    void undoingItsPaymentUnmatchesAndEndsIt() {
        UndoPlan plan = UndoPlan.of(wire(ahead("200.00")), Map.of(), TODAY, TODAY);
        assertThat(plan.entries()).hasSize(2);
        assertThat(plan.entries().get(0))
                .isEqualTo(new JournalEntry(
                        TODAY,
                        "Taken back: Offset O-12",
                        List.of(JournalLine.debit(AHEAD, usd("300.00")), JournalLine.credit(PAYABLES, usd("300.00")))));
        assertThat(plan.entry().lines())
                .containsExactly(JournalLine.debit(CASH, usd("500.00")), JournalLine.credit(AHEAD, usd("500.00")));
        assertThat(plan.openAgain()).isEqualTo(Map.of(INVOICE, usd("300.00")));
        Effect.Before invoice = new Effect.Before(
                INVOICE,
                "FS-5133",
                usd("800.00"),
                usd("500.00"),
                usd("800.00"),
                BigDecimal.ZERO,
                null,
                usd("300.00"),
                usd("0.00"));
        Effect effect = Effect.of(plan, Map.of(INVOICE, invoice), TODAY, 0, Effect.OnYear.NOT_REPORTED);
        assertThat(effect.items())
                .extracting(Effect.OnItem::reference, Effect.OnItem::becomes, Effect.OnItem::openAfter)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("PO-118", Effect.Becomes.ENDED, usd("0.00")),
                        org.assertj.core.groups.Tuple.tuple("FS-5133", Effect.Becomes.OPEN, usd("800.00")));
    }

    @Test
    void itsPaymentIsUndoneNoEarlierThanItWasMatchedAndOnlyWhole() {
        assertThatThrownBy(() -> UndoPlan.of(wire(ahead("200.00")), Map.of(), MATCHED.minusDays(1), TODAY))
                .hasMessageContaining("matched with an invoice on Mon 9 Nov 2026");
        assertThatThrownBy(() -> UndoPlan.of(wire(ahead("150.00")), Map.of(), TODAY, TODAY))
                .hasMessageContaining("50.00 of the prepayment PO-118 came back from the vendor");
    }
}
