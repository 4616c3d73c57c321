package leveltally.core.outside;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.invoice;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.checks.NumberRange;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class OutsideTest {
    @ParameterizedTest(name = "{0} of {1}{2}: {3}")
    @CsvSource({
        "101, H-, 101, 101",
        "H-101, H-, 101, 101",
        "' h-0102 ', H-, 101, 102",
        "101, '', 101, 101",
    })
    void aCheckIsNamedWithItsLettersOrWithout(String typed, String prefix, long first, long number) {
        assertThat(OutsideNumber.ofCheck(typed, new NumberRange(prefix, first, null)))
                .isEqualTo(number);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "H-", "H-1x", "K-101", "100", "201", "9999999999", "H--101"})
    void whatIsNoNumberOfTheBookIsRefused(String typed) {
        assertThatThrownBy(() -> OutsideNumber.ofCheck(typed, new NumberRange("H-", 101, 200L)))
                .isInstanceOf(Refusal.class);
    }

    @Test
    void referencesAreKeptInOneForm() {
        assertThat(OutsideNumber.ofReference("  ft 2291-88\t a/2 ")).isEqualTo("FT 2291-88 A/2");
        for (String none : List.of("", "-1", "FT_1", "a".repeat(36))) {
            assertThatThrownBy(() -> OutsideNumber.ofReference(none)).isInstanceOf(Refusal.class);
        }
    }

    @Test
    void aPaymentWasMadeWithinAYear() {
        var today = day("2026-11-12");
        assertThatCode(() -> OutsideDay.of(today, today)).doesNotThrowAnyException();
        assertThatCode(() -> OutsideDay.of(day("2025-11-11"), today)).doesNotThrowAnyException();
        assertThatThrownBy(() -> OutsideDay.of(day("2026-11-13"), today)).hasMessageContaining("lies outside");
        assertThatThrownBy(() -> OutsideDay.of(day("2025-11-10"), today)).hasMessageContaining("lies outside");
    }

    @Test
    void thePaidAmountIsAFactAndTheDiscountThatLivedCounts() {
        OpenInvoice living = invoice(1, "1000.00", "2026-11-01", "2026-12-01", "2", "2026-11-11");
        OpenInvoice plain = invoice(2, "500.00", "2026-11-01", "2026-11-20", "0", null);
        // to the cent what was left to pay with the discount
        List<ClaimLine> lines = OutsideLines.settling(usd("1480.00"), List.of(living, plain), day("2026-11-10"), 0);
        assertThat(cash(lines)).isEqualTo(usd("1480.00"));
        assertThat(lines).extracting(ClaimLine::discount).containsExactly(usd("0.00"), usd("20.00"));
        // a cent more was paid without
        lines = OutsideLines.settling(usd("1480.01"), List.of(living, plain), day("2026-11-10"), 0);
        assertThat(cash(lines)).isEqualTo(usd("1480.01"));
        assertThat(lines).extracting(ClaimLine::discount).containsOnly(usd("0.00"));
        // the day after the discount was gone
        assertThat(OutsideLines.settling(usd("980.00"), List.of(living), day("2026-11-12"), 0))
                .extracting(ClaimLine::discount)
                .containsExactly(usd("0.00"));
        assertThatThrownBy(() -> OutsideLines.settling(usd("1500.01"), List.of(living, plain), day("2026-11-10"), 0))
                .hasMessageContaining("less than the");
        assertThatThrownBy(() -> OutsideLines.settling(usd("500.00"), List.of(living, plain), day("2026-11-10"), 0))
                .hasMessageContaining("is used up before R-1");
    }

    @Test
    void anAmountTellsTheOneInvoiceItFits() {
        OpenInvoice living = invoice(1, "1000.00", "2026-11-01", "2026-12-01", "2", "2026-11-11");
        OpenInvoice same = invoice(2, "980.00", "2026-11-01", "2026-12-01", "0", null);
        assertThat(OutsideLines.toldBy(usd("1000.00"), List.of(living, same), day("2026-11-10"), 0))
                .isEqualTo(living);
        assertThatThrownBy(() -> OutsideLines.toldBy(usd("980.00"), List.of(living, same), day("2026-11-10"), 0))
                .hasMessageContaining("fits R-1 and R-2");
        assertThat(OutsideLines.toldBy(usd("980.00"), List.of(living, same), day("2026-11-12"), 0))
                .isEqualTo(same);
        assertThatThrownBy(() -> OutsideLines.toldBy(usd("3.00"), List.of(living, same), day("2026-11-12"), 0))
                .hasMessageContaining("No open invoice");
    }

    /** Whatever was paid, no cent is made or lost, and no invoice is settled beyond what it owes. */
    @Test
    void noCentIsMadeOrLost() {
        Random random = new Random(20_261_112);
        int recorded = 0;
        for (int run = 0; run < 5_000; run++) {
            List<OpenInvoice> invoices = new ArrayList<>();
            for (int i = 0; i <= random.nextInt(5); i++) {
                invoices.add(invoice(
                        i + 1,
                        Money.ofMinor(1 + random.nextInt(20_000), USD)
                                .toString()
                                .replace(",", ""),
                        "2026-11-01",
                        day("2026-11-15").plusDays(random.nextInt(20)).toString(),
                        Integer.toString(random.nextInt(4)),
                        "2026-11-1" + random.nextInt(9)));
            }
            Money paid = Money.ofMinor(1 + random.nextInt(60_000), USD);
            List<ClaimLine> lines;
            try {
                lines = OutsideLines.settling(paid, invoices, day("2026-11-14"), 0);
            } catch (Refusal refused) {
                continue;
            }
            recorded++;
            assertThat(cash(lines)).isEqualTo(paid);
            assertThat(lines).hasSameSizeAs(invoices);
            for (ClaimLine line : lines) {
                OpenInvoice of = invoices.stream()
                        .filter(one -> one.id().equals(((ClaimLine.Invoice) line).id()))
                        .findFirst()
                        .orElseThrow();
                assertThat(line.gross()).isLessThanOrEqualTo(of.open());
                assertThat(line.cash().isPositive()).isTrue();
                assertThat(line.discount())
                        .isLessThanOrEqualTo(of.payInFull(day("2026-11-14"), 0).discount());
            }
        }
        assertThat(recorded).isGreaterThan(500);
    }

    private static Money cash(List<ClaimLine> lines) {
        return Money.sum(lines.stream().map(ClaimLine::cash).toList(), USD);
    }
}
