package leveltally.practicebank;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Days at the bank: what it takes, pays and tells, and that a day that was cut off is done again as it was. */
class PracticeBankTest {
    private static final String ACCOUNT = "004417720931";
    private static final LocalDate MONDAY = LocalDate.of(2026, 11, 16);

    /** A list of checks with their amounts in cents, counted at the end. */
    private static final String LAYOUT = """
            {"name": "list", "encoding": "UTF-8", "lineEnd": "LF", "separator": ";", "quote": "'", "escape": "NONE", "records": [
              {"place": "DETAIL", "tells": "BOTH", "fields": [%s, %s, %s, %s]},
              {"place": "TRAILER", "tells": "BOTH", "fields": [%s, %s, %s]}]}
            """.formatted(
                    field("CONSTANT", "D"),
                    field("KIND", ""),
                    field("NUMBER", ""),
                    field("AMOUNT", ""),
                    field("CONSTANT", "T"),
                    field("COUNT", ""),
                    field("ACCOUNT_NUMBER", ""));

    @TempDir
    private Path home;

    private PracticeBank bank;

    private static String field(String source, String value) {
        return """
                {"name": "%s", "source": "%s", "value": "%s", "width": 0, "align": "LEFT", "fill": " ", "decimals": "IMPLIED",
                 "substitutions": {"values": {}, "missing": "STAYS", "other": ""}}""".formatted(source, source, value);
    }

    @BeforeEach
    void opened() {
        bank = new PracticeBank(home);
        bank.open(new Agreement(
                ACCOUNT,
                "USD",
                2,
                100_000,
                12,
                MONDAY.minusDays(3),
                List.of(new Agreement.Known(40_001, 5_000, true)),
                List.of(new Agreement.Moved(MONDAY.minusDays(1), 0, -250, "Charges"))));
        bank.agree(ACCOUNT, LAYOUT);
        bank.write(ACCOUNT, PracticeBank.Writes.LISTS);
    }

    private Path desk(String folder) {
        return home.resolve("desk").resolve(PracticeBank.folder(ACCOUNT)).resolve(folder);
    }

    private void lay(String name, String text) throws IOException {
        Files.writeString(desk("in").resolve(name), text);
    }

    private Map<String, String> told() throws IOException {
        Map<String, String> told = new TreeMap<>();
        try (var files = Files.list(desk("out"))) {
            for (Path file : files.toList()) {
                told.put(String.valueOf(file.getFileName()), Files.readString(file));
            }
        }
        return told;
    }

    @Test
    void aFileIsTakenAnsweredAndPaidFrom() throws IOException {
        lay("a.txt", "D;ISSUE;41237;122500\nD;VOID;41238;100\nT;2;4417720931\n");
        bank.letPass(ACCOUNT, MONDAY);
        assertThat(told().get("answer-a.txt"))
                .isEqualTo("ANSWER;a.txt;TAKEN;\r\nCHECK;41238;No such check was told to us\r\n");
        assertThat(told().get("statement-2026-11-16.csv"))
                .startsWith("STATEMENT;004417720931;13;2026-11-14;2026-11-16;1000.00;997.50\r\n")
                .contains("2026-11-15;;2.50;;997.50;;Charges");
        for (int day = 1; day < 6; day++) {
            bank.letPass(ACCOUNT, MONDAY.plusDays(day));
        }
        assertThat(String.join("", told().values())).contains(";41237;1225.00;;");
        assertThat(bank.look(ACCOUNT).balanceMinor()).isEqualTo(100_000 - 250 - 122_500);
    }

    @Test
    void whatItCannotReadItRefusesAndSaysWhy() throws IOException {
        lay("cut.txt", "D;ISSUE;41237;122500\n");
        lay("count.txt", "D;ISSUE;41237;122500\nT;2;4417720931\n");
        lay("other.txt", "D;ISSUE;41237;122500\nT;1;999\n");
        lay("unfinished.txt.part", "D;");
        bank.letPass(ACCOUNT, MONDAY);
        assertThat(told().get("answer-cut.txt")).contains(";REFUSED;Record 1 is not the trailer");
        assertThat(told().get("answer-count.txt")).contains("says of COUNT 2, its records come to 1");
        assertThat(told().get("answer-other.txt")).contains(";REFUSED;The file is of another account");
        assertThat(told()).doesNotContainKey("answer-unfinished.txt.part");
        assertThat(bank.look(ACCOUNT).outstanding()).isZero();
    }

    /** Killed before its books were kept, the bank does the day again and tells the same. */
    @Test
    void aDayThatWasCutOffIsDoneAgainAsItWas() throws IOException {
        Path books = home.resolve("books").resolve(PracticeBank.folder(ACCOUNT) + ".json");
        String text = "D;ISSUE;41237;122500\nT;1;4417720931\n";
        bank.order(ACCOUNT, Mischief.PAY_VOIDED, true);
        String before = Files.readString(books);
        lay("a.txt", text);
        bank.letPass(ACCOUNT, MONDAY);
        Map<String, String> first = told();
        String after = Files.readString(books);

        Files.writeString(books, before);
        lay("a.txt", text);
        new PracticeBank(home).letPass(ACCOUNT, MONDAY);
        assertThat(told()).isEqualTo(first);
        assertThat(Files.readString(books)).isEqualTo(after);
        // the same bytes again, and the same day
        lay("b.txt", text);
        assertThat(bank.letPass(ACCOUNT, MONDAY).did()).containsExactly("The bank had this day already.");
        assertThat(bank.letPass(ACCOUNT, MONDAY.plusDays(1)).did())
                .anyMatch(one -> one.startsWith("Passed over b.txt"));
    }

    @Test
    void whatDidNotComeIsSentWhenItIsAskedFor() throws IOException {
        bank.order(ACCOUNT, Mischief.SKIP_STATEMENT, true);
        bank.letPass(ACCOUNT, MONDAY);
        assertThat(told()).doesNotContainKey("statement-2026-11-16.csv");
        assertThat(bank.ask(ACCOUNT)).containsExactly("statement-2026-11-16.csv");
        assertThat(told()).containsKey("statement-2026-11-16.csv");
        assertThat(bank.ask(ACCOUNT)).isEmpty();
    }

    /** An account whose company tells of no check: the bank pays what people bring, and no file is agreed on. */
    @Test
    void whatPeopleHoldIsPaidAsItComes() throws IOException {
        String other = "004417721008";
        bank.open(new Agreement(other, "USD", 2, 50_000, 0, MONDAY.minusDays(1), List.of(), List.of()));
        List<Agreement.Known> held = List.of(
                new Agreement.Known(7_001, 1_000, false),
                new Agreement.Known(7_002, 2_000, false),
                new Agreement.Known(7_003, 4_000, true));
        Files.writeString(home.resolve("desk/account-1008/in/a.txt"), "D;ISSUE;1;1\n");
        for (int day = 0; day < 6; day++) {
            bank.handedOut(other, held);
            bank.letPass(other, MONDAY.plusDays(day));
        }
        assertThat(bank.look(other).balanceMinor()).isEqualTo(50_000 - 3_000);
        assertThat(bank.look(other).outstanding()).isZero();
        assertThat(Files.readString(home.resolve("desk/account-1008/out/answer-a.txt")))
                .contains(";REFUSED;Nobody agreed with us");
        assertThat(home.resolve("desk/account-1008/out/statement-2026-11-16.xml"))
                .exists();
    }

    @Test
    void itsFoldersLieAtTheBankOnly() {
        assertThat(PracticeBank.folder(ACCOUNT)).isEqualTo("account-0931");
        assertThatThrownBy(() -> bank.keep("../elsewhere")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aDescriptionIsReadByAnybody() throws Unreadable {
        byte[] file = "D;VOID;7;1\nT;1;0\n".getBytes(StandardCharsets.UTF_8);
        assertThat(OtherReader.read(LAYOUT, "0", 2, file)).containsExactly(new ToldCheck(false, 7, 1L, "", ""));
    }
}
