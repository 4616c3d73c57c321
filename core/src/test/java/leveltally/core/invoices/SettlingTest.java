package leveltally.core.invoices;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.openCredit;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;

class SettlingTest {
    private static final LocalDate CHECK = day("2026-04-10");
    private static final OpenInvoice FIRST = invoice(1, "800", "2026-04-01", "2026-05-01", "0", null);
    private static final OpenInvoice SECOND = invoice(2, "300", "2026-04-20", "2026-05-20", "0", null);

    private static Settling pay(List<OpenInvoice> invoices, OpenCredit... credits) {
        List<Settling.Owed> owed =
                invoices.stream().map(one -> new Settling.Owed(one, null)).toList();
        return Settling.of(owed, List.of(credits), CHECK, 0);
    }

    @Test
    void aCreditLowersTheDiscountablePartFirst() {
        Settling settling = pay(
                List.of(invoice(1, "800", "2026-04-05", "2026-05-05", "2", "2026-04-15")),
                openCredit(9, "250", "2026-03-01"));
        assertThat(settling.discount()).isEqualTo(usd("11"));
        assertThat(settling.cash()).isEqualTo(usd("539"));
    }

    @Test
    void oldestCreditsGoAgainstWhatIsDueFirst() {
        Settling settling =
                pay(List.of(SECOND, FIRST), openCredit(9, "900", "2026-03-02"), openCredit(8, "250", "2026-03-01"));
        assertThat(settling.cash()).isEqualTo(usd("0"));
        assertThat(settling.uses())
                .extracting(use -> use.credit().id().value() + " " + use.used())
                .containsExactly("8 250.00", "9 850.00");
    }

    @Test
    void onlyTheSmallerCreditLeavesOnePayment() {
        assertThat(pay(List.of(FIRST, SECOND), openCredit(8, "250", "2026-03-01"))
                        .cash())
                .isEqualTo(usd("850"));
    }

    /** On a line with a credit, net is what the credit leaves; more is refused, offering it. */
    @Test
    void rejectsCashOverWhatTheCreditLeaves() {
        OpenInvoice invoice = invoice(1, "740", "2026-04-05", "2026-05-05", "0", null);
        List<OpenCredit> credit = List.of(openCredit(9, "250", "2026-03-01"));
        assertThatThrownBy(() -> Settling.of(List.of(new Settling.Owed(invoice, usd("900"))), credit, CHECK, 0))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Pay 490.00");
        assertThat(Settling.of(List.of(new Settling.Owed(invoice, usd("490"))), credit, CHECK, 0)
                        .cash())
                .isEqualTo(usd("490"));
        List<OpenCredit> all = List.of(openCredit(9, "740", "2026-03-01"));
        assertThatThrownBy(() -> Settling.of(List.of(new Settling.Owed(invoice, usd("1"))), all, CHECK, 0))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("Credits settle all");
    }

    @Test
    void anOffsetTakesNoDiscountAndSettlesNoMoreThanTheSmallerSide() {
        OpenInvoice early = invoice(1, "100", "2026-04-05", "2026-05-05", "2", "2026-04-15");
        Settling offset = Settling.offset(List.of(early), List.of(openCredit(8, "60", "2026-03-01")));
        assertThat(offset.credit()).isEqualTo(usd("60"));
        assertThat(offset.discount()).isEqualTo(usd("0"));
        assertThat(offset.cash()).isEqualTo(usd("0"));
    }

    @Test
    void anOffsetWritesAnEntryOnlyBetweenDifferentAccounts() {
        Settling offset = Settling.offset(List.of(FIRST), List.of(openCredit(8, "60", "2026-03-01")));
        AccountId one = new AccountId(2000);
        AccountId other = new AccountId(2010);
        assertThat(OffsetEntry.of(CHECK, "Offset", offset, Map.of(FIRST.id(), one, new InvoiceId(8), one)))
                .isEmpty();
        assertThat(OffsetEntry.of(CHECK, "Offset", offset, Map.of(FIRST.id(), one, new InvoiceId(8), other)))
                .hasValueSatisfying(entry -> assertThat(entry.lines())
                        .containsExactly(JournalLine.debit(one, usd("60")), JournalLine.credit(other, usd("60"))));
    }

    /** Whatever is owed and credited: what is settled never passes the open amount, and both sides agree. */
    @Test
    void settlesExactlyWhatIsThere() {
        Random random = new Random(3);
        for (int round = 0; round < 500; round++) {
            OpenInvoice one =
                    invoice(1, 1 + random.nextInt(500) + ".25", "2026-04-05", "2026-05-05", "2", "2026-04-15");
            OpenInvoice two = invoice(2, 1 + random.nextInt(500) + ".99", "2026-04-05", "2026-05-04", "0", null);
            OpenCredit a = openCredit(8, String.valueOf(1 + random.nextInt(400)), "2026-03-01");
            OpenCredit b = openCredit(9, String.valueOf(1 + random.nextInt(400)), "2026-02-01");
            Settling settling = pay(List.of(one, two), a, b);
            Money used = settling.uses().stream().map(Settling.Use::used).reduce(usd("0"), Money::plus);
            assertThat(settling.credit()).isEqualTo(used);
            assertThat(used).isEqualTo(one.open().plus(two.open()).min(a.open().plus(b.open())));
            Money settled =
                    settling.lines().stream().map(Settling.Line::settled).reduce(usd("0"), Money::plus);
            assertThat(settled).isEqualTo(one.open().plus(two.open()));
        }
    }
}
