package leveltally.core.electronic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Returns and notifications of change beside a file written out by hand. */
class AchNoticeReaderTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static final String CONTROL = "82200000%02d%s%012d%012d1994400117" + " ".repeat(25) + "99004410000000%d";

    /** Two returns, of 1,225.00 and of 0.01, and one change. */
    private static final List<String> FILE = List.of(
            "101 99440011799900441052611160800A094101MARROW BAY FERRIES     SKERROW TRUST                  ",
            "5220MARROW BAY                          1994400117CCDINVOICES  261116261116   1990044100000001",
            "621990073053770031182264     0000122500E-41           Oakum & Pitch Chandler  1990073050000001",
            "799R03990044100000041      99007305" + "%-44s".formatted("ask the payee") + "990073050000001",
            "63199004410555001            0000000001E-42           Ile de Gorse            1990044100000002",
            "799R16990044100000042      99004410" + " ".repeat(44) + "990044100000002",
            CONTROL.formatted(4, "0198011715", 0, 122_501, 1),
            "5220MARROW BAY                          1994400117CORINVOICES  261116261116   1990044100000002",
            "621990073053770031182264     0000000000E-43           Gannet Rope Walk        1990073050000003",
            "798C03990044100000043      99007305990044105   770031182265     " + " ".repeat(15) + "990073050000003",
            CONTROL.formatted(2, "0099007305", 0, 0, 2),
            "9000002000002000000060297019020" + "000000000000" + "000000122501" + " ".repeat(39));

    private static List<AchNotice> read(List<String> records, String end) throws IOException {
        List<AchNotice> found = new ArrayList<>();
        String text = String.join(end, records) + end;
        AchNoticeReader.read(new ByteArrayInputStream(text.getBytes(StandardCharsets.ISO_8859_1)), found::add);
        return found;
    }

    private static List<String> with(int record, String other) {
        List<String> records = new ArrayList<>(FILE);
        records.set(record, other);
        return records;
    }

    @Test
    void theRecordsOfTheTestHaveTheirLength() {
        assertThat(FILE).allSatisfy(record -> assertThat(record).hasSize(AchRecord.LENGTH));
    }

    @ParameterizedTest
    @CsvSource({"'\r\n'", "'\n'", "''"})
    void whatComesBackIsToldWithItsReason(String end) throws IOException {
        assertThat(read(FILE, end))
                .containsExactly(
                        new AchNotice.Returned(
                                "R03",
                                "990044100000041",
                                Money.ofMinor(122_500, USD),
                                "Oakum & Pitch Chandler",
                                "ask the payee"),
                        new AchNotice.Returned("R16", "990044100000042", Money.ofMinor(1, USD), "Ile de Gorse", ""),
                        new AchNotice.Changed(
                                "C03",
                                "990044100000043",
                                "990044105",
                                "770031182265",
                                null,
                                "990044105   770031182265"));
        assertThat(read(FILE, end)).extracting(AchNotice::sequence).containsExactly(41, 42, 43);
        assertThat(AchCodes.words("R03")).contains("no such account");
        assertThat(AchCodes.words("R77")).isEqualTo("the bank's code R77");
    }

    @ParameterizedTest
    @CsvSource({
        "C01, '77-1', , 77-1,",
        "C02, 990044105, 990044105, ,",
        "C05, 32, , , true",
        "C05, 22, , , false",
        "C06, '4711                32', , 4711, true",
        "C07, '9900441054711             22', 990044105, 4711, false",
        "C04, Gannet Ropes, , ,"
    })
    void whatChangesStandsWhereItsCodeSays(
            String code, String corrected, String routing, String account, Boolean savings) throws IOException {
        List<String> records = new ArrayList<>(FILE);
        records.set(
                9,
                "798" + code + "990044100000043      99007305" + "%-29s".formatted(corrected) + " ".repeat(15)
                        + "990073050000003");
        AchNotice.Changed changed = (AchNotice.Changed) read(records, "\n").get(2);
        assertThat(changed)
                .isEqualTo(
                        new AchNotice.Changed(code, "990044100000043", routing, account, savings, corrected.strip()));
    }

    @Test
    void aFileThatWasCutOffIsRefused() {
        String whole = String.join("\r\n", FILE);
        for (int length = 0; length < whole.length() - 94; length += 31) {
            List<String> cut = List.of(whole.substring(0, length));
            assertThatThrownBy(() -> read(cut, "\r\n"))
                    .isInstanceOf(Refusal.class)
                    .hasMessageContaining("Nothing of the file was read");
        }
    }

    @Test
    void whatDoesNotAgreeIsNamed() {
        assertThatThrownBy(() -> read(with(6, CONTROL.formatted(5, "0198011715", 0, 122_501, 1)), "\n"))
                .hasMessageContaining("Record 7 says of entries and addenda 5, the records come to 4");
        assertThatThrownBy(() -> read(with(6, CONTROL.formatted(4, "0198011715", 0, 122_500, 1)), "\n"))
                .hasMessageContaining("says of credits 122500");
        assertThatThrownBy(() -> read(with(3, FILE.get(4)), "\n")).hasMessageContaining("does not say what it returns");
        assertThatThrownBy(() -> read(with(2, FILE.get(3)), "\n")).hasMessageContaining("says something of no entry");
        assertThatThrownBy(() -> read(with(3, "705" + FILE.get(3).substring(3)), "\n"))
                .hasMessageContaining("neither a return nor");
        assertThatThrownBy(() -> read(with(4, "6219900ab"), "\n")).hasMessageContaining("no figure in positions");
        assertThatThrownBy(() -> read(with(0, "HELLO"), "\n")).hasMessageContaining("does not begin an ACH file");
        List<String> behind = new ArrayList<>(FILE);
        behind.add(FILE.get(1));
        assertThatThrownBy(() -> read(behind, "\n")).hasMessageContaining("behind the end");
    }
}
