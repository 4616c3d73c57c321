package leveltally.core.bankfiles;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static leveltally.core.bankfiles.Layout.Align.LEFT;
import static leveltally.core.bankfiles.Layout.Align.RIGHT;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import leveltally.core.bankfiles.BankFile.Item;
import leveltally.core.bankfiles.Layout.Field;
import leveltally.core.bankfiles.Layout.Source;
import org.junit.jupiter.api.Test;

class BankFileTest {
    private static final BankFile.About ABOUT = new BankFile.About("990044105", "4417", USD, day("2026-11-12"), 7);

    private static Field field(String name, Source source, int width, Layout.Align align, char fill) {
        return new Field(name, source, "", width, align, fill, true, false, Map.of("ISSUE", "I", "VOID", "V"), false);
    }

    private static Layout layout(int payeeWidth, boolean cut) {
        return new Layout(
                "test",
                "ISO-8859-1",
                "\r\n",
                List.of(new Field("date", Source.FILE_DATE, "yyMMdd", 6, LEFT, ' ', false, false, Map.of(), false)),
                List.of(
                        field("kind", Source.KIND, 1, LEFT, ' '),
                        field("number", Source.NUMBER, 8, RIGHT, '0'),
                        field("amount", Source.AMOUNT, 9, RIGHT, '0'),
                        new Field("payee", Source.PAYEE, "", payeeWidth, LEFT, ' ', false, true, Map.of(), cut)),
                List.of(
                        field("count", Source.COUNT, 4, RIGHT, '0'),
                        field("issued", Source.ISSUE_TOTAL, 10, RIGHT, '0'),
                        field("voids", Source.VOID_COUNT, 2, RIGHT, '0'),
                        field("voided", Source.VOID_TOTAL, 8, RIGHT, '0'),
                        field("issues", Source.ISSUE_COUNT, 2, RIGHT, '0')));
    }

    private static Item item(Item.Kind kind, long number, String amount, String payee) {
        return new Item(kind, number, usd(amount), day("2026-11-13"), payee);
    }

    @Test
    void describesHeaderDetailsAndTrailer() {
        BankFile file = BankFile.of(
                layout(10, false),
                ABOUT,
                List.of(
                        item(Item.Kind.ISSUE, 41237, "1225.00", "Bollard"),
                        item(Item.Kind.VOID, 41238, "0.99", "Île")));
        assertThat(file.findings()).isEmpty();
        assertThat(new String(file.bytes(), StandardCharsets.ISO_8859_1))
                .isEqualTo(
                        "261112\r\nI00041237000122500BOLLARD   \r\nV00041238000000099ÎLE       \r\n00020000122500010000009901\r\n");
    }

    @Test
    void rejectsWhatDoesNotFitNamingRowAndField() {
        BankFile file = BankFile.of(
                layout(5, false),
                ABOUT,
                List.of(item(Item.Kind.ISSUE, 1, "1", "Tern"), item(Item.Kind.ISSUE, 2, "1", "Bollard Foundry")));
        assertThat(file.bytes()).isEmpty();
        assertThat(file.findings()).singleElement().satisfies(finding -> {
            assertThat(finding.row()).isEqualTo(2);
            assertThat(finding.field()).isEqualTo("payee");
        });
    }

    @Test
    void cutsOnlyWhereTheFieldSaysSo() {
        BankFile file = BankFile.of(layout(5, true), ABOUT, List.of(item(Item.Kind.ISSUE, 1, "1", "Bollard Foundry")));
        assertThat(file.records().get(1)).endsWith("BOLLA");
    }

    @Test
    void rejectsACharacterTheEncodingLacks() {
        BankFile file = BankFile.of(layout(10, false), ABOUT, List.of(item(Item.Kind.ISSUE, 1, "1", "Łódź")));
        assertThat(file.findings())
                .singleElement()
                .satisfies(f -> assertThat(f.sentence()).contains("ISO-8859-1"));
    }

    @Test
    void aLineBreakInANameStaysInsideItsField() {
        BankFile file = BankFile.of(layout(12, false), ABOUT, List.of(item(Item.Kind.ISSUE, 1, "1", "A\r\nI0000")));
        assertThat(new String(file.bytes(), StandardCharsets.ISO_8859_1).split("\r\n"))
                .hasSize(3);
    }
}
