package leveltally.core.bankfiles;

import static leveltally.core.bankfiles.LayoutField.constant;
import static leveltally.core.bankfiles.LayoutField.of;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.LayoutField.Decimals;
import leveltally.core.bankfiles.LayoutField.Sign;
import leveltally.core.bankfiles.LayoutField.Substitutions;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class RecordReaderTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static final LocalDate DAY = LocalDate.of(2026, 11, 13);

    private static Money usd(String amount) {
        return Money.parse(amount, USD);
    }

    private static Layout paid(Shape shape, LayoutField... fields) {
        return new Layout(
                "Paid",
                Layout.Use.PAID_CHECKS,
                "UTF-8",
                false,
                Layout.LineEnd.LF,
                shape,
                "",
                List.of(
                        new LayoutRecord(
                                LayoutRecord.Place.HEADER, LayoutRecord.Tells.BOTH, List.of(constant("h", "PAID"))),
                        new LayoutRecord(LayoutRecord.Place.DETAIL, LayoutRecord.Tells.BOTH, List.of(fields)),
                        new LayoutRecord(
                                LayoutRecord.Place.TRAILER,
                                LayoutRecord.Tells.BOTH,
                                List.of(
                                        constant("t", "END"),
                                        of("count", Source.COUNT, 4).right('0'),
                                        of("total", Source.TOTAL, 10).right('0').with(Decimals.IMPLIED)))));
    }

    private static Layout list() {
        return paid(
                new Shape.Fixed(),
                of("number", Source.NUMBER, 8).right('0'),
                of("amount", Source.AMOUNT, 10).right('0').with(Decimals.IMPLIED),
                of("day", Source.EVENT_DATE, 8).saying("yyyyMMdd"),
                of("kind", Source.KIND, 1)
                        .with(new Substitutions(
                                Map.of("PAID", "P", "REVERSED", "R"), Substitutions.Missing.REFUSED, "")));
    }

    private static RecordReader.Read read(Layout layout, String text) {
        return RecordReader.read(layout, USD, text.getBytes(layout.charset()));
    }

    private static final String GOOD =
            "PAID\n00041237000012250020261113P\n00041238000000000120261113R\nEND00020000122501\n";

    @Test
    void whatABankPaidIsReadByTheSameLanguage() {
        RecordReader.Read read = read(list(), GOOD);

        assertThat(read.findings()).isEmpty();
        assertThat(read.events()).hasSize(2);
        RecordReader.Values first = read.events().get(0).values();
        assertThat(first.figure(Source.NUMBER)).contains(41237L);
        assertThat(first.amount(Source.AMOUNT)).contains(usd("1225.00"));
        assertThat(first.day(Source.EVENT_DATE)).contains(DAY);
        assertThat(first.text(Source.KIND)).contains("PAID");
        assertThat(read.events().get(1).values().text(Source.KIND)).contains("REVERSED");
        assertThat(read.events().get(1).line()).isEqualTo(3);
    }

    /** What banks do to files on their way. */
    @ParameterizedTest
    @ValueSource(strings = {"\r\n", "\r", "\n"})
    void otherLineEndsAndBlankLinesAtTheEndDoNoHarm(String end) {
        assertThat(read(list(), "\uFEFF" + GOOD.replace("\n", end) + end + " " + end + "\u001A")
                        .events())
                .hasSize(2);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "PAID/00041237000012250020261113P|trailer-missing",
                "PAID/00041237000012250020261113P/END00020000122500|does-not-agree",
                "PAID/00041237000012250020261113P/END00010000122501|does-not-agree",
                "SAID/00041237000012250020261113P/END00010000122500|no-such-record",
                "PAID/00041237000012250020261113P and more/END00010000122500|no-such-record",
                "PAID|cut-off",
                "~~|empty"
            })
    void aFileThatIsNotWholeIsRefused(String text, String code) {
        assertThatThrownBy(() -> read(list(), text.replace('/', '\n')))
                .isInstanceOfSatisfying(
                        Refusal.class, refusal -> assertThat(refusal.code()).isEqualTo("bank-file-" + code));
    }

    @Test
    void whatIsInAnotherEncodingIsRefused() {
        byte[] latin = "PAID\nÎ".getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> RecordReader.read(list(), USD, latin))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("not written in UTF-8");
    }

    @ParameterizedTest
    @CsvSource({
        "0004123A000012250020261113P, number",
        "0004123700001225-020261113P, amount",
        "00041237000012250020261331P, day",
        "00041237000012250020261113X, kind"
    })
    void aValueThatDoesNotReadIsToldByLineAndField(String line, String field) {
        List<RecordReader.Finding> findings =
                read(list(), "PAID\n" + line + "\nEND00010000122500").findings();

        assertThat(findings).singleElement().satisfies(one -> {
            assertThat(one.line()).isEqualTo(2);
            assertThat(one.field()).isEqualTo(field);
            assertThat(one.sentence()).endsWith(".");
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "POINT|NONE|1225.00|1225.00",
                "POINT|NONE|1,225.00|1225.00",
                "POINT|NONE|1225.5|1225.50",
                "POINT|NONE|.5|0.50",
                "POINT|LEADING|-12.00|-12.00",
                "POINT|TRAILING|12.00-|-12.00",
                "COMMA|NONE|1225,00|1225.00",
                "COMMA|LEADING_ALWAYS|+1.225,00|1225.00",
                "IMPLIED|TRAILING_ALWAYS|122500+|1225.00",
                "IMPLIED|NONE|0|0.00"
            })
    void amountsAreReadAsTheyAreWritten(Decimals decimals, Sign sign, String stands, String amount) throws Exception {
        LayoutField field = of("a", Source.AMOUNT, 0).with(decimals).signed(sign);
        assertThat(new FieldValue(field).amount(stands, USD)).isEqualTo(usd(amount));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "POINT|12,5",
                "POINT|1.225,00",
                "POINT|1e3",
                "POINT|12.345",
                "POINT|-1.00",
                "IMPLIED|1.00",
                "IMPLIED|999999999999999999"
            })
    void noAmountIsReadGenerously(Decimals decimals, String stands) {
        LayoutField field = of("a", Source.AMOUNT, 0).with(decimals);
        assertThatThrownBy(() -> new FieldValue(field).amount(stands, USD)).isInstanceOf(FieldValue.Unreadable.class);
    }

    static List<Layout> standard() {
        return StandardBankLayouts.all();
    }

    /** What one of our own layouts writes says the same when it is read. */
    @ParameterizedTest
    @MethodSource("standard")
    void whatIsWrittenReadsBackEqual(Layout layout) {
        for (int seed = 0; seed < 50; seed++) {
            sameBack(layout, RandomLayouts.items(new Random(seed)), layout.name() + ", seed " + seed);
        }
    }

    @Test
    void overRandomLayoutsToo() {
        int written = 0;
        for (int seed = 0; seed < 600; seed++) {
            Random random = new Random(seed);
            Layout layout = RandomLayouts.layout(random);
            if (LayoutCheck.of(layout).isEmpty()
                    && sameBack(layout, RandomLayouts.items(random), "seed " + seed + ": " + layout)) {
                written++;
            }
        }
        assertThat(written).isGreaterThan(300);
    }

    private static boolean sameBack(Layout layout, List<BankFile.Item> items, String which) {
        BankFile file = BankFile.of(layout, RandomLayouts.ABOUT, items);
        if (!file.findings().isEmpty()) {
            return false;
        }
        RecordReader.Read read = RecordReader.read(layout, USD, file.bytes());
        assertThat(read.findings()).as(which).isEmpty();
        assertThat(read.events()).as(which).hasSameSizeAs(items);
        for (int i = 0; i < items.size(); i++) {
            RecordReader.Values values = read.events().get(i).values();
            BankFile.Item item = items.get(i);
            values.text(Source.KIND)
                    .ifPresent(kind -> assertThat(kind)
                            .as(which)
                            .isEqualToIgnoringCase(item.kind().name()));
            values.figure(Source.NUMBER)
                    .ifPresent(number -> assertThat(number).as(which).isEqualTo(item.number()));
            values.text(Source.NUMBER_AS_PRINTED)
                    .ifPresent(number -> assertThat(number).as(which).isEqualTo(item.printed()));
            values.amount(Source.AMOUNT)
                    .ifPresent(amount -> assertThat(amount).as(which).isEqualTo(item.amount()));
            values.day(Source.CHECK_DATE)
                    .ifPresent(day -> assertThat(day).as(which).isEqualTo(item.checkDate()));
            values.day(Source.EVENT_DATE)
                    .ifPresent(day -> assertThat(day).as(which).isEqualTo(item.date()));
            for (LayoutRecord record : layout.at(LayoutRecord.Place.DETAIL)) {
                for (LayoutField field : record.fields()) {
                    if (field.source().isOfEvent()
                            && (record.tells() == LayoutRecord.Tells.BOTH)
                            && field.source() != Source.PAYEE_GOES_ON) {
                        assertThat(values.all()).as(which).containsKey(field.source());
                    }
                }
            }
        }
        return true;
    }

    @Test
    void aLayoutToReadSaysWhatItMustTell() {
        assertThat(LayoutCheck.of(list())).isEmpty();
        List<String> wrong = LayoutCheck.of(paid(
                        new Shape.Fixed(),
                        of("payee", Source.PAYEE_GOES_ON, 8),
                        of("kind", Source.KIND, 1)
                                .with(new Substitutions(
                                        Map.of("PAID", "P", "REVERSED", "P"), Substitutions.Missing.STAYS, ""))))
                .stream()
                .map(LayoutCheck.Wrong::sentence)
                .collect(Collectors.toList());

        assertThat(wrong)
                .contains(
                        "No detail tells the number of a check.",
                        "No detail tells the day on which the bank paid.",
                        "A file of paid checks does not hold payee goes on.",
                        "Two of its substitutions stand for one value: read, it would be either.");
    }
}
