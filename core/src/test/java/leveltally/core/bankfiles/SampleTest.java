package leveltally.core.bankfiles;

import static leveltally.core.bankfiles.LayoutField.constant;
import static leveltally.core.bankfiles.LayoutField.of;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.LayoutField.Characters;
import leveltally.core.bankfiles.LayoutField.Decimals;
import leveltally.core.bankfiles.LayoutField.Letters;
import leveltally.core.bankfiles.LayoutField.Sign;
import leveltally.core.bankfiles.LayoutField.Substitutions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** A layout held against a bank's own sample, and its fields tried with single values. */
class SampleTest {
    private static final Currency USD = Currency.getInstance("USD");

    static List<Layout> ours() {
        return StandardBankLayouts.all();
    }

    /** What a layout wrote itself is as it says, whatever its shape. */
    @ParameterizedTest
    @MethodSource("ours")
    void whatItWroteItselfDiffersNowhere(Layout layout) {
        BankFile file = BankFile.of(layout, RandomLayouts.ABOUT, RandomLayouts.items(new Random(5)));
        String sample = new String(file.bytes(), layout.charset()).replace("\uFEFF", "");
        List<SampleLine> laid = SampleLine.over(layout, USD, sample);
        assertThat(laid).hasSameSizeAs(file.records());
        assertThat(laid)
                .allSatisfy(
                        line -> assertThat(line.differences()).as(line.text()).isEmpty());
        for (int i = 0; i < laid.size(); i++) {
            assertThat(laid.get(i).kind()).isEqualTo(file.records().get(i).kind());
            assertThat(laid.get(i).spans()).isEqualTo(file.records().get(i).spans());
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "X990044105000000000931202611120000271234567890123456789012345678901234567890123456789012|record|the layout says “H”",
                "H99004410500000000093120261312000027|file date|is no day",
                "H990044105000000000931202611120000X7|file serial|is no number",
                "H990044105000000000931|''|the header of the layout 80"
            })
    void whereASampleDiffersIsSaidByItsField(String line, String field, String sentence) {
        String trailer = "T0000000000000000000000" + " ".repeat(57);
        SampleLine laid = SampleLine.over(StandardBankLayouts.eightyCharacters(), USD, line + "\r\n" + trailer)
                .get(0);
        assertThat(laid.kind()).isZero();
        assertThat(laid.differences()).anySatisfy(one -> {
            assertThat(one.name()).isEqualTo(field);
            assertThat(one.sentence()).contains(sentence);
        });
    }

    @Test
    void aLineIsTakenForTheDetailItFitsBest() {
        String sample = "00;990044105;4417;USD;13.11.2026\r\n20;1;41237;13.11.2026;20.11.2026;1225,00\r\n"
                + "10;2;41238;13.11.2026;+1225,00;O'Malley \\; Sons\r\n99;1;0,00;1;1;0,00;1;4\r\n";
        List<SampleLine> laid = SampleLine.over(StandardBankLayouts.semicolonsWithTotals(), USD, sample);
        assertThat(laid).extracting(SampleLine::kind).containsExactly(0, 2, 1, 3);
        assertThat(laid.get(2).differences()).isEmpty();
    }

    private static FieldTry tried(LayoutField field, String value) {
        return FieldTry.of(StandardBankLayouts.eightyCharacters(), field, USD, value);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "IMPLIED|NONE|RIGHT|0|10|1225.00|0000122500",
                "POINT|NONE|RIGHT|0|10|1225.00|0001225.00",
                "COMMA|LEADING|RIGHT|0|10|-0.07|-000000,07",
                "COMMA|LEADING|RIGHT|*|10|-0.07|-*****0,07",
                "POINT|TRAILING_ALWAYS|RIGHT|0|10|3.10|000003.10+",
                "POINT|LEADING_ALWAYS|LEFT|x|10|3.10|+3.10xxxxx",
                "IMPLIED|TRAILING|LEFT|x|6|-3.10|310-xx",
                "POINT|NONE|RIGHT|0|0|0.00|0.00"
            })
    void anAmountStandsInItsPlace(
            Decimals decimals, Sign sign, LayoutField.Align align, char fill, int width, String value, String stands) {
        LayoutField amount = of("a", Source.AMOUNT, width).with(decimals).signed(sign);
        LayoutField field = align == LayoutField.Align.RIGHT
                ? amount.right(fill)
                : new LayoutField(
                        "a",
                        Source.AMOUNT,
                        "",
                        width,
                        align,
                        fill,
                        false,
                        Letters.AS_THEY_ARE,
                        decimals,
                        sign,
                        Substitutions.NONE,
                        Characters.ALL);
        assertThat(tried(field, value)).isEqualTo(new FieldTry(stands, List.of()));
    }

    @Test
    void aFieldIsTriedWithAValue() {
        LayoutField kind = of("kind", Source.KIND, 1)
                .with(new Substitutions(Map.of("ISSUE", "I"), Substitutions.Missing.REFUSED, ""));
        assertThat(tried(kind, "ISSUE").written()).isEqualTo("I");
        assertThat(tried(kind, "VOID").findings()).first().asString().contains("has no substitution");
        LayoutField payee = of("payee", Source.PAYEE, 8)
                .in(Letters.UPPER)
                .with(new Characters("A-Z ", Map.of("&", "+"), Characters.Beyond.LEFT_OUT, ""))
                .cutting();
        assertThat(tried(payee, "Île & Söhne").written()).isEqualTo("ILE + SO");
        assertThat(tried(of("day", Source.EVENT_DATE, 8).saying("MM/dd/yy"), "2026-11-13")
                        .written())
                .isEqualTo("11/13/26");
        assertThat(tried(of("number", Source.NUMBER, 4).right('0'), "123456").findings())
                .first()
                .asString()
                .contains("needs 6 characters, the field has 4");
        assertThatThrownBy(() -> tried(of("day", Source.EVENT_DATE, 8).saying("yyyyMMdd"), "tomorrow"))
                .isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> tried(of("a", Source.AMOUNT, 8), "1.2.3")).isInstanceOf(Refusal.class);
    }

    /** A file a bank only tries says so, by its name and where a field is for it. */
    @Test
    void aTestFileIsMarked() {
        Layout layout = new Layout(
                "x",
                "US-ASCII",
                false,
                Layout.LineEnd.LF,
                new Shape.Fixed(),
                "a-{serial}.txt",
                List.of(new LayoutRecord(
                        LayoutRecord.Place.HEADER,
                        LayoutRecord.Tells.BOTH,
                        List.of(
                                constant("h", "H"),
                                of("mode", Source.LIVE_OR_TEST, 1)
                                        .with(new Substitutions(
                                                Map.of("LIVE", "P", "TEST", "T"),
                                                Substitutions.Missing.REFUSED,
                                                ""))))));
        assertThat(BankFile.of(layout, RandomLayouts.ABOUT, List.of()).texts()).containsExactly("HP");
        assertThat(BankFile.of(layout, RandomLayouts.ABOUT.tested(), List.of()).texts())
                .containsExactly("HT");
        assertThat(FileName.of(layout.fileName(), RandomLayouts.ABOUT.tested())).isEqualTo("TEST-a-7.txt");
    }

    /** An encoding that marks its byte order would mark every part of a file. */
    @Test
    void anEncodingSaysWhichByteComesFirst() {
        Layout layout = StandardBankLayouts.eightyCharacters();
        Layout marked =
                new Layout("x", "UTF-16", false, layout.lineEnd(), layout.shape(), layout.fileName(), layout.records());
        assertThat(LayoutCheck.of(marked))
                .extracting(LayoutCheck.Wrong::sentence)
                .contains("Say which byte comes first: UTF-16LE or UTF-16BE.");
    }

    @Test
    void answersAndDecisionsAreCheckedForWhatTheyMustTell() {
        assertThat(StandardBankLayouts.answers())
                .allSatisfy(layout -> assertThat(LayoutCheck.of(layout)).isEmpty());
        Layout.Use[] uses = {Layout.Use.ANSWER, Layout.Use.DECISIONS};
        for (Layout.Use use : uses) {
            Layout bare = new Layout(
                    "x",
                    use,
                    "UTF-8",
                    false,
                    Layout.LineEnd.LF,
                    new Shape.Fixed(),
                    "a.txt",
                    List.of(new LayoutRecord(
                            LayoutRecord.Place.DETAIL, LayoutRecord.Tells.BOTH, List.of(of("why", Source.TEXT, 9)))));
            assertThat(LayoutCheck.of(bare))
                    .extracting(LayoutCheck.Wrong::sentence)
                    .contains("No detail tells the number of a check.")
                    .hasSize(2);
        }
    }

    @Test
    void anAnswerSaysWhatBecameOfAFile() {
        Layout layout = StandardBankLayouts.answerList();
        FileAnswer taken = FileAnswer.of(RecordReader.read(
                layout,
                USD,
                "ANSWER;a.txt;TAKEN;\r\nCHECK;HW70012;payee missing\r\nCHECK;0000041237;\r\n"
                        .getBytes(layout.charset())));
        assertThat(taken.taken()).isTrue();
        assertThat(taken.name()).isEqualTo("a.txt");
        assertThat(taken.refused())
                .containsExactly(
                        new FileAnswer.RefusedCheck("HW70012", "payee missing"),
                        new FileAnswer.RefusedCheck("41237", "the bank does not say why"));
        FileAnswer refused = FileAnswer.of(
                RecordReader.read(layout, USD, "ANSWER;a.txt;REFUSED;cut off".getBytes(layout.charset())));
        assertThat(refused.taken()).isFalse();
        assertThat(refused.note()).isEqualTo("cut off");
        assertThatThrownBy(() ->
                        FileAnswer.of(RecordReader.read(layout, USD, "ANSWER;a.txt;MAYBE;".getBytes(layout.charset()))))
                .hasMessageContaining("neither TAKEN nor REFUSED");
    }
}
