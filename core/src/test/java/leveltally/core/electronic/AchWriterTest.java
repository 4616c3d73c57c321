package leveltally.core.electronic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Currency;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;

/** ACH files beside files written out by hand, position by position, from the record layouts of the rules. */
class AchWriterTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static final LocalDateTime MADE = LocalDateTime.of(2026, 11, 12, 9, 5);
    private static final LocalDate FRIDAY = LocalDate.of(2026, 11, 13);

    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();

    private static AchSender sender(String offset) {
        return new AchSender(
                new RoutingNumber("990044105"),
                "SKERROW TRUST",
                "1994400117",
                "MARROW BAY FERRIES",
                "MARROW BAY",
                "1994400117",
                "INVOICES",
                new RoutingNumber("990044105"),
                offset);
    }

    private static AchEntry entry(
            int sequence, String bank, String account, long cents, String payee, String... addenda) {
        return new AchEntry(
                sequence,
                new RoutingNumber(bank),
                account,
                false,
                Money.ofMinor(cents, USD),
                "E-" + sequence,
                payee,
                List.of(addenda));
    }

    private List<String> records() {
        return bytes.toString(StandardCharsets.US_ASCII).lines().toList();
    }

    @Test
    void aFileIsAsItWasWrittenOutByHand() throws IOException {
        AchWriter writer = new AchWriter(sender(null), MADE, 'A', bytes);
        writer.begin(EntryClass.CCD, FRIDAY);
        writer.entry(entry(
                41, "990073053", "770031182264", 122_500, "Oakum & Pitch Chandlery", "RMR*IV*OP-1180**1225.00\\"));
        writer.entry(new AchEntry(
                42,
                new RoutingNumber("990044105"),
                "55001",
                true,
                Money.ofMinor(1, USD),
                "E-42",
                "Île de Gorse",
                List.of()));
        writer.end();
        AchTotals totals = writer.finish();

        assertThat(records())
                .containsExactly(
                        "101 99004410519944001172611120905A094101SKERROW TRUST          MARROW BAY FERRIES             ",
                        "5220MARROW BAY                          1994400117CCDINVOICES  261113261113   1990044100000001",
                        "622990073053770031182264     0000122500E-41           Oakum & Pitch Chandler  1990044100000041",
                        "705RMR*IV*OP-1180**1225.00\\                                                        00010000041",
                        "63299004410555001            0000000001E-42           Ile de Gorse            0990044100000042",
                        "82200000030198011715000000000000000000122501" + "1994400117" + " ".repeat(25)
                                + "990044100000001",
                        "9000001000001000000030198011715000000000000000000122501" + " ".repeat(39),
                        "9".repeat(94),
                        "9".repeat(94),
                        "9".repeat(94));
        // 99007305 and 99004410
        assertThat(totals).isEqualTo(new AchTotals(3, 198_011_715, 0, 122_501));
    }

    @Test
    void aBatchIsDebitedWithWhatItPays() throws IOException {
        AchWriter writer = new AchWriter(sender("004417720931"), MADE, 'B', bytes);
        writer.begin(EntryClass.PPD, FRIDAY);
        writer.entry(entry(7, "990073053", "1234", 5_000, "Ada Ferris"));
        writer.entry(entry(8, "990073053", "1234", 2_500, "Ada Ferris"));
        writer.end();
        AchTotals totals = writer.finish();
        assertThat(records().get(1)).startsWith("5200MARROW BAY").contains("PPDINVOICES");
        assertThat(records().get(4))
                .isEqualTo("627990044105004417720931     0000007500" + " ".repeat(15) + "MARROW BAY" + " ".repeat(14)
                        + "0990044109990001");
        assertThat(records().get(5)).startsWith("82000000030297019020000000007500000000007500");
        assertThat(totals.debit()).isEqualTo(totals.credit()).isEqualTo(7_500);
    }

    @Test
    void manyAddendaAreCountedAndNumbered() throws IOException {
        AchWriter writer = new AchWriter(sender(null), MADE, 'A', bytes);
        writer.begin(EntryClass.CTX, FRIDAY);
        writer.entry(entry(1, "990073053", "1234", 5_000, "Tern & Daughters Diesel Works", "a".repeat(80), "b", "c"));
        writer.end();
        writer.finish();
        assertThat(records().get(2))
                .isEqualTo(
                        "6229900730531234             0000005000E-1            0003Tern & Daughters    1990044100000001");
        assertThat(records().get(3)).isEqualTo("705" + "a".repeat(80) + "00010000001");
        assertThat(records().get(5)).isEqualTo("705c" + " ".repeat(79) + "00030000001");
        assertThat(records().get(6)).startsWith("8220000004");
        assertThat(records()).hasSize(10).allMatch(record -> record.length() == 94);
    }

    @Test
    void aPrenotificationPaysNothing() throws IOException {
        AchWriter writer = new AchWriter(sender("004417720931"), MADE, 'A', bytes);
        writer.begin(EntryClass.CCD, FRIDAY);
        writer.entry(entry(1, "990073053", "1234", 0, "Gannet Rope Walk"));
        writer.entry(new AchEntry(
                2, new RoutingNumber("990073053"), "9", true, Money.zero(USD), "E-2", "Gannet Rope Walk", List.of()));
        writer.end();
        writer.finish();
        assertThat(records().get(2)).startsWith("623");
        assertThat(records().get(3)).startsWith("633");
        // nothing to be debited with
        assertThat(records().get(4)).startsWith("8200000002");
    }

    /** Ten records are one block, eleven are two. */
    @Test
    void blocksAreFilled() throws IOException {
        for (int entries = 1; entries < 30; entries++) {
            bytes.reset();
            AchWriter writer = new AchWriter(sender(null), MADE, 'A', bytes);
            writer.begin(EntryClass.PPD, FRIDAY);
            for (int i = 1; i <= entries; i++) {
                writer.entry(entry(i, "990073053", "1234", 5_000, "Ada Ferris"));
            }
            writer.end();
            writer.finish();
            assertThat(records().size() % 10).isZero();
            int blocks = (entries + 4 + 9) / 10;
            assertThat(records()).hasSize(blocks * 10);
            assertThat(records().get(entries + 3)).startsWith("9000001" + "%06d".formatted(blocks));
        }
    }

    @Test
    void whatHasNoRoomIsRefused() throws IOException {
        assertThatThrownBy(() -> entry(1, "990073053", "1234", 10_000_000_000L, "x"))
                .hasMessageContaining("99,999,999.99");
        assertThat(entry(1, "990073053", "1234", 9_999_999_999L, "x").amount().plain())
                .isEqualTo("99999999.99");
        assertThatThrownBy(() -> entry(1, "990073053", "1".repeat(18), 1, "x")).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> new AchEntry(
                        1,
                        new RoutingNumber("990073053"),
                        "1",
                        false,
                        Money.ofMinor(1, Currency.getInstance("EUR")),
                        "",
                        "x",
                        List.of()))
                .hasMessageContaining("USD only");
        AchWriter writer = new AchWriter(sender(null), MADE, 'A', bytes);
        assertThatThrownBy(() -> writer.entry(entry(1, "990073053", "1", 1, "x")))
                .hasMessageContaining("no batch");
        writer.begin(EntryClass.CCD, FRIDAY);
        writer.entry(entry(5, "990073053", "1", 1, "x"));
        assertThatThrownBy(() -> writer.entry(entry(5, "990073053", "1", 1, "x")))
                .hasMessageContaining("does not follow");
        assertThatThrownBy(() -> writer.entry(entry(6, "990073053", "1", 1, "x", "a", "b")))
                .hasMessageContaining("more than");
        assertThatThrownBy(writer::finish).hasMessageContaining("not ended");
    }

    @Test
    void whatTheBankGaveIsChecked() {
        assertThatThrownBy(() -> sender("12")).hasMessageContaining("4 to 17 digits");
        assertThatThrownBy(() -> new AchSender(
                        new RoutingNumber("990044105"),
                        "Skerrow Trust of the Harbours",
                        "1",
                        "M",
                        "M",
                        "1",
                        "D",
                        new RoutingNumber("990044105"),
                        null))
                .hasMessageContaining("1 to 23");
    }
}
