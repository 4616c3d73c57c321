package leveltally.core.bankfiles;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static leveltally.core.bankfiles.LayoutField.constant;
import static leveltally.core.bankfiles.LayoutField.of;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.BankFile.Item;
import leveltally.core.bankfiles.LayoutField.Characters;
import leveltally.core.bankfiles.LayoutField.Decimals;
import leveltally.core.bankfiles.LayoutField.Letters;
import leveltally.core.bankfiles.LayoutField.Sign;
import leveltally.core.bankfiles.LayoutField.Substitutions;
import leveltally.core.bankfiles.LayoutRecord.Place;
import leveltally.core.bankfiles.LayoutRecord.Tells;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Files for the bank, by what their layouts say. */
class BankFileTest {
    private static final BankFile.About ABOUT = new BankFile.About("990044105", "4417", USD, day("2026-11-12"), 7);

    private static Layout fixed(LayoutField... detail) {
        return new Layout(
                "test",
                "ISO-8859-1",
                false,
                Layout.LineEnd.LF,
                new Shape.Fixed(),
                "x",
                List.of(new LayoutRecord(Place.DETAIL, Tells.BOTH, List.of(detail))));
    }

    private static Layout delimited(Shape.Quoting quoting, Shape.Escape escape) {
        return new Layout(
                "test",
                "UTF-8",
                false,
                Layout.LineEnd.LF,
                new Shape.Delimited(',', '"', quoting, escape),
                "x",
                List.of(new LayoutRecord(
                        Place.DETAIL,
                        Tells.BOTH,
                        List.of(of("number", Source.NUMBER, 0), of("payee", Source.PAYEE, 0)))));
    }

    private static Item item(Item.Kind kind, long number, String amount, String payee) {
        return new Item(
                kind,
                number,
                "H-" + number,
                usd(amount),
                day("2026-11-13"),
                kind == Item.Kind.ISSUE ? day("2026-11-13") : day("2026-11-20"),
                payee);
    }

    private static Item issue(String payee) {
        return item(Item.Kind.ISSUE, 1, "1", payee);
    }

    private static String written(Layout layout, Item... items) {
        BankFile file = BankFile.of(layout, ABOUT, List.of(items));
        assertThat(file.findings()).isEmpty();
        return new String(file.bytes(), layout.charset());
    }

    private static final Item BOLLARD = item(Item.Kind.ISSUE, 41237, "1225.00", "Bollard");
    private static final Item ILE = item(Item.Kind.VOID, 41238, "0.99", "Île");

    @Test
    void aFixedFileWithHeaderAndTrailer() {
        assertThat(written(StandardBankLayouts.eightyCharacters(), BOLLARD, ILE))
                .isEqualTo("H990044105000000004417" + "20261112" + "000007" + " ".repeat(44) + "\r\n"
                        + "DI0000000044170000041237" + "000000122500" + "20261113" + "BOLLARD" + " ".repeat(29) + "\r\n"
                        + "DV0000000044170000041238" + "000000000099" + "20261120" + "ÎLE" + " ".repeat(33) + "\r\n"
                        + "T00000002" + "00000000122500" + " ".repeat(57) + "\r\n");
    }

    @Test
    void aListWithAHeadingAndAMark() {
        assertThat(written(StandardBankLayouts.commaList(), BOLLARD, item(Item.Kind.VOID, 2, "0.99", "A \"B\", C")))
                .isEqualTo("\uFEFF\"account\",\"check\",\"kind\",\"amount\",\"date\",\"payee\"\n"
                        + "\"4417\",\"H-41237\",\"issue\",1225.00,2026-11-13,\"Bollard\"\n"
                        + "\"4417\",\"H-2\",\"void\",0.99,2026-11-20,\"A \"\"B\"\", C\"\n");
    }

    @Test
    void issuesAndVoidsApartWithTotalsOfEach() {
        assertThat(written(StandardBankLayouts.semicolonsWithTotals(), BOLLARD, ILE, issue("D'Or; Fils")))
                .isEqualTo("00;990044105;4417;USD;12.11.2026\r\n"
                        + "10;1;41237;13.11.2026;+1225,00;Bollard\r\n"
                        + "20;2;41238;13.11.2026;20.11.2026;0,99\r\n"
                        + "10;3;1;13.11.2026;+1,00;'D\\'Or; Fils'\r\n"
                        + "99;2;1226,00;41238;1;0,99;41238;5\r\n");
    }

    @Test
    void twoRecordsACheckOfOneLengthWithNothingBetween() {
        String file = written(
                StandardBankLayouts.twoRecordsACheck(),
                item(Item.Kind.ISSUE, 41237, "1225.00", "Bollard & Söhne Foundry of Skerrow"));
        assertThat(file).hasSize(4 * 60);
        assertThat(records(StandardBankLayouts.twoRecordsACheck(), file.getBytes(StandardCharsets.US_ASCII)))
                .containsExactly(
                        "BOF000000007" + "111226" + " ".repeat(42),
                        "CK1      41237IS" + "0000000122500+" + "111326" + " ".repeat(24),
                        "CK2" + "BOLLARD + SOHNE FOUNDRY OF  " + "SKERROW" + " ".repeat(22),
                        "EOF000000004" + "0000000000122500" + "000000041237" + " ".repeat(20));
    }

    @Test
    void everyStandardLayoutIsRightAndNamesItsFile() {
        assertThat(StandardBankLayouts.all()).hasSizeGreaterThan(3).allSatisfy(layout -> {
            assertThat(LayoutCheck.of(layout)).isEmpty();
            assertThat(FileName.of(layout.fileName(), ABOUT)).doesNotContain("{");
        });
        assertThat(FileName.of("checks_{account}_{date:ddMMyy}_{serial:4}.csv", ABOUT))
                .isEqualTo("checks_4417_121126_0007.csv");
        assertThatThrownBy(() -> FileName.of("a/b", ABOUT)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> FileName.of("{serial:many}", ABOUT)).hasMessageContaining("“many” says nothing");
        assertThatThrownBy(() -> FileName.of("{date:QQQQQQQ}", ABOUT)).isInstanceOf(Refusal.class);
    }

    /** Each field's place leads back to its value. */
    @Test
    void eachCharacterBelongsToItsField() {
        BankFile file = BankFile.of(StandardBankLayouts.semicolonsWithTotals(), ABOUT, List.of(issue("D'Or; Fils")));
        Laid detail = file.records().get(1);
        assertThat(detail.kind()).isEqualTo(1);
        Laid.Span payee = detail.spans().get(5);
        assertThat(detail.text().substring(payee.from(), payee.to())).isEqualTo("'D\\'Or; Fils'");
    }

    @Test
    void rejectsWhatDoesNotFitNamingRowAndField() {
        BankFile file = BankFile.of(
                fixed(of("payee", Source.PAYEE, 5)), ABOUT, List.of(issue("Tern"), issue("Bollard Foundry")));
        assertThat(file.bytes()).isEmpty();
        assertThat(file.findings()).singleElement().satisfies(finding -> {
            assertThat(finding.row()).isEqualTo(2);
            assertThat(finding.field()).isEqualTo("payee");
            assertThat(finding.sentence()).contains("needs 15 characters, the field has 5");
        });
        assertThat(written(fixed(of("payee", Source.PAYEE, 5).cutting()), issue("Bollard Foundry")))
                .isEqualTo("Bolla\n");
    }

    @Test
    void aLineBreakInANameStaysInsideItsField() {
        assertThat(written(fixed(of("payee", Source.PAYEE, 9)), issue("A\r\nI0000")))
                .isEqualTo("A  I0000 \n");
        assertThat(written(delimited(Shape.Quoting.WHERE_NEEDED, Shape.Escape.DOUBLED), issue("A\nB")))
                .isEqualTo("1,A B\n");
    }

    @ParameterizedTest(name = "{0} quoted {1}, {2}: {3}")
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            A, B   | NEVER        | BACKSLASH | 1,A\\, B
            A, B   | WHERE_NEEDED | DOUBLED   | 1,"A, B"
            Plain  | WHERE_NEEDED | DOUBLED   | 1,Plain
            A "B"  | WHERE_NEEDED | DOUBLED   | 1,"A ""B""\"
            A "B"  | ALWAYS       | BACKSLASH | "1","A \\"B\\""
            A "B"  | TEXTS        | NONE      | refused
            A, B   | NEVER        | NONE      | refused
            A, B   | NEVER        | DOUBLED   | refused
            """)
    void whatSeparatesFieldsWithinOne(String payee, Shape.Quoting quoting, Shape.Escape escape, String expected) {
        BankFile file = BankFile.of(delimited(quoting, escape), ABOUT, List.of(issue(payee)));
        if (expected.equals("refused")) {
            assertThat(file.findings())
                    .singleElement()
                    .satisfies(found -> assertThat(found.sentence()).contains("separates or quotes fields"));
        } else {
            assertThat(new String(file.bytes(), StandardCharsets.UTF_8)).isEqualTo(expected + "\n");
        }
    }

    @Test
    void charactersABankDoesNotTakeAreReplacedLeftOutOrRefused() {
        Characters capitals = new Characters("A-Z ", Map.of("&", "AND"), Characters.Beyond.LEFT_OUT, "");
        LayoutField payee = of("payee", Source.PAYEE, 20).in(Letters.UPPER);
        assertThat(written(fixed(payee.with(capitals)), issue("Île & Söhne (1)")))
                .startsWith("ILE AND SOHNE  ");
        Characters refusing = new Characters("A-Z", Map.of(), Characters.Beyond.REFUSED, "");
        assertThat(BankFile.of(fixed(payee.with(refusing)), ABOUT, List.of(issue("A-B")))
                        .findings())
                .singleElement()
                .satisfies(found -> assertThat(found.sentence()).contains("“-” in “A-B” is not among"));
        assertThat(BankFile.of(fixed(of("payee", Source.PAYEE, 10)), ABOUT, List.of(issue("Łódź")))
                        .findings())
                .singleElement()
                .satisfies(found -> assertThat(found.sentence()).contains("ISO-8859-1"));
        // a minus stands for itself at an end, a range between two
        assertThat(new Characters("-A-C0", Map.of(), Characters.Beyond.REFUSED, ""))
                .satisfies(
                        set -> assertThat("-ABC0".chars().allMatch(set::allows)).isTrue())
                .satisfies(
                        set -> assertThat("D1 ".chars().noneMatch(set::allows)).isTrue());
    }

    @Test
    void aValueWithoutASubstitutionStaysIsRefusedOrBecomesAnother() {
        Map<String, String> voids = Map.of("VOID", "X");
        LayoutField kind = of("kind", Source.KIND, 5);
        assertThat(written(fixed(kind.with(new Substitutions(voids, Substitutions.Missing.STAYS, ""))), BOLLARD, ILE))
                .isEqualTo("ISSUE\nX    \n");
        assertThat(written(fixed(kind.with(new Substitutions(voids, Substitutions.Missing.OTHER, "-"))), BOLLARD, ILE))
                .isEqualTo("-    \nX    \n");
        assertThat(BankFile.of(
                                fixed(kind.with(new Substitutions(voids, Substitutions.Missing.REFUSED, ""))),
                                ABOUT,
                                List.of(BOLLARD))
                        .findings())
                .singleElement()
                .satisfies(found -> assertThat(found.sentence()).startsWith("“ISSUE” has no substitution"));
    }

    @ParameterizedTest(name = "{0} {1} {2} filled {3}: {4}")
    @CsvSource(quoteCharacter = '`', textBlock = """
            POINT,   NONE,            RIGHT, 0, `0001225.00`
            COMMA,   LEADING_ALWAYS,  RIGHT, 0, `+001225,00`
            COMMA,   LEADING_ALWAYS,  RIGHT, _, `+__1225,00`
            IMPLIED, TRAILING_ALWAYS, RIGHT, 0, `000122500+`
            IMPLIED, TRAILING,        LEFT,  _, `122500____`
            """)
    void amountsByDecimalsAndSign(Decimals decimals, Sign sign, LayoutField.Align align, char fill, String expected) {
        LayoutField right = of("amount", Source.AMOUNT, 10).right(fill);
        LayoutField field = new LayoutField(
                right.name(),
                right.source(),
                "",
                10,
                align,
                fill,
                false,
                Letters.AS_THEY_ARE,
                decimals,
                sign,
                Substitutions.NONE,
                Characters.ALL);
        assertThat(written(fixed(field), BOLLARD)).isEqualTo(expected + "\n");
    }

    @ParameterizedTest
    @ValueSource(strings = {"KLINGON-8", "A B!", "", "x-JISAutoDetect"})
    void anEncodingNobodyCanWriteIsSaid(String encoding) {
        Layout given = fixed(constant("only", "x"));
        Layout wrong =
                new Layout(given.name(), encoding, false, given.lineEnd(), given.shape(), "a/b", given.records());
        assertThat(LayoutCheck.of(wrong).stream().map(LayoutCheck.Wrong::sentence))
                .hasSize(2)
                .anyMatch(said -> said.contains("no encoding"))
                .anyMatch(said -> said.contains("is no name for a file"));
    }

    @Test
    void whatReplacesSomethingBeginsNoRecord() {
        LayoutField kind = of("kind", Source.KIND, 5)
                .with(new Substitutions(Map.of("ISSUE", "I\nV"), Substitutions.Missing.STAYS, ""));
        assertThat(written(fixed(kind), BOLLARD)).isEqualTo("I V  \n");
        assertThat(LayoutCheck.of(fixed(kind.right('\n'))))
                .singleElement()
                .satisfies(wrong -> assertThat(wrong.sentence()).contains("nobody sees"));
    }

    @Test
    void aSumOfNumbersKeepsItsLastDigits() {
        Layout layout = new Layout(
                "test",
                "US-ASCII",
                false,
                Layout.LineEnd.LF,
                new Shape.Fixed(),
                "x",
                List.of(
                        new LayoutRecord(Place.DETAIL, Tells.VOIDS, List.of(of("number", Source.NUMBER, 5))),
                        new LayoutRecord(
                                Place.TRAILER,
                                Tells.BOTH,
                                List.of(of("sum", Source.HASH, 4).right('0')))));
        assertThat(written(layout, BOLLARD, ILE)).isEqualTo("41238\n2475\n");
    }

    @Test
    void aLayoutThatCannotBeRightIsNot() {
        LayoutField number = of("number", Source.NUMBER, 10);
        Layout wrong = new Layout(
                "test",
                "KLINGON-8",
                false,
                Layout.LineEnd.NONE,
                new Shape.Delimited(',', ',', Shape.Quoting.ALWAYS, Shape.Escape.NONE),
                "x",
                List.of(
                        new LayoutRecord(Place.HEADER, Tells.BOTH, List.of(number)),
                        new LayoutRecord(
                                Place.DETAIL,
                                Tells.ISSUES,
                                List.of(
                                        new LayoutField(
                                                "number",
                                                Source.NUMBER,
                                                "",
                                                3_000,
                                                LayoutField.Align.LEFT,
                                                '0',
                                                true,
                                                Letters.AS_THEY_ARE,
                                                Decimals.POINT,
                                                Sign.NONE,
                                                Substitutions.NONE,
                                                Characters.ALL),
                                        of("Number", Source.PAYEE_GOES_ON, 5),
                                        of("day", Source.CHECK_DATE, 5).saying("never"))),
                        new LayoutRecord(Place.TRAILER, Tells.BOTH, List.of())));
        assertThat(LayoutCheck.of(wrong).stream().map(LayoutCheck.Wrong::sentence))
                .anyMatch(said -> said.contains("no encoding"))
                .anyMatch(said -> said.contains("something that ends them"))
                .anyMatch(said -> said.contains("the same character"))
                .anyMatch(said -> said.contains("No detail tells of a void"))
                .anyMatch(said -> said.contains("A header knows of no single check"))
                .anyMatch(said -> said.contains("Its width is 0 to 2000"))
                .anyMatch(said -> said.contains("would be read as another one"))
                .anyMatch(said -> said.contains("never cut"))
                .anyMatch(said -> said.contains("a name of its own"))
                .anyMatch(said -> said.contains("goes on from a field of the payee"))
                .anyMatch(said -> said.contains("describes no day"))
                .anyMatch(said -> said.contains("This trailer has no fields"));
        assertThat(LayoutCheck.of(fixed(constant("only", "x")))).isEmpty();
    }

    private static List<String> records(Layout layout, byte[] content) {
        StoredRecords stored = new StoredRecords(layout, new java.io.ByteArrayInputStream(content));
        List<String> records = new java.util.ArrayList<>();
        try {
            for (String one = stored.next(); one != null; one = stored.next()) {
                records.add(one);
            }
        } catch (java.io.IOException inMemory) {
            throw new java.io.UncheckedIOException(inMemory);
        }
        return records;
    }

    /** What is written is taken apart again as it was put together, whatever ends a record. */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.MethodSource("ours")
    void itsRecordsAreFoundAgain(Layout layout) {
        BankFile file = BankFile.of(layout, ABOUT, RandomLayouts.items(new java.util.Random(11)));
        assertThat(records(layout, file.bytes())).isEqualTo(file.texts());
    }

    static List<Layout> ours() {
        return StandardBankLayouts.all();
    }

    /** Figures are written digit by digit only where an encoding has ASCII for them and for what stands around them. */
    @ParameterizedTest
    @CsvSource({"UTF-8, «", "UTF-8, '\"'", "windows-1252, «", "IBM037, '\"'", "UTF-16LE, «", "US-ASCII, '\"'"})
    void whateverTheEncodingItsBytesSayTheSame(String encoding, char quote) {
        Layout layout = new Layout(
                "test",
                encoding,
                false,
                Layout.LineEnd.LF,
                new Shape.Delimited('\t', quote, Shape.Quoting.ALWAYS, Shape.Escape.DOUBLED),
                "x",
                List.of(new LayoutRecord(
                        Place.DETAIL,
                        Tells.BOTH,
                        List.of(
                                of("number", Source.NUMBER, 8),
                                of("printed", Source.NUMBER_AS_PRINTED, 0),
                                of("amount", Source.AMOUNT, 0),
                                of("payee", Source.PAYEE, 0)))));
        BankFile file = BankFile.of(layout, ABOUT, List.of(issue("Gannet Rope Walk"), issue("Tern & Daughters")));
        String record =
                String.join("\t", "1", "H-1", "1.00", "Gannet Rope Walk").replaceAll("[^\t]+", quote + "$0" + quote);
        assertThat(file.findings()).isEmpty();
        assertThat(file.texts().get(0)).isEqualTo(record);
        assertThat(new String(file.bytes(), java.nio.charset.Charset.forName(encoding)))
                .isEqualTo(record + "\n" + file.texts().get(1) + "\n");
    }
}
