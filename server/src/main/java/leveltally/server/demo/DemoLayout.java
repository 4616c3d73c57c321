package leveltally.server.demo;

import static leveltally.core.bankfiles.Layout.Align.LEFT;
import static leveltally.core.bankfiles.Layout.Align.RIGHT;

import java.util.List;
import java.util.Map;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.Layout.Field;
import leveltally.core.bankfiles.Layout.Source;

/** The positive pay layout of the made-up Skerrow Trust: fixed width, 80 characters a record. */
final class DemoLayout {
    private DemoLayout() {}

    static Layout skerrowTrust() {
        return new Layout(
                "Skerrow Trust, 80 characters",
                "ISO-8859-1",
                "\r\n",
                List.of(
                        constant("record", "H", 1),
                        number("routing number", Source.ROUTING_NUMBER, 9),
                        number("account number", Source.ACCOUNT_NUMBER, 12),
                        date("file date", Source.FILE_DATE),
                        number("file serial", Source.FILE_SERIAL, 6),
                        filler(44)),
                List.of(
                        constant("record", "D", 1),
                        new Field(
                                "kind",
                                Source.KIND,
                                "",
                                1,
                                LEFT,
                                ' ',
                                false,
                                false,
                                Map.of("ISSUE", "I", "VOID", "V"),
                                false),
                        number("account number", Source.ACCOUNT_NUMBER, 12),
                        number("check number", Source.NUMBER, 10),
                        new Field("amount", Source.AMOUNT, "", 12, RIGHT, '0', true, false, Map.of(), false),
                        date("date", Source.DATE),
                        new Field("payee", Source.PAYEE, "", 36, LEFT, ' ', false, true, Map.of(), true)),
                List.of(
                        constant("record", "T", 1),
                        number("count", Source.COUNT, 8),
                        new Field("issued", Source.ISSUE_TOTAL, "", 14, RIGHT, '0', true, false, Map.of(), false),
                        filler(57)));
    }

    private static Field constant(String name, String value, int width) {
        return new Field(name, Source.CONSTANT, value, width, LEFT, ' ', false, false, Map.of(), false);
    }

    private static Field filler(int width) {
        return constant("blank", "", width);
    }

    private static Field number(String name, Source source, int width) {
        return new Field(name, source, "", width, RIGHT, '0', false, false, Map.of(), false);
    }

    private static Field date(String name, Source source) {
        return new Field(name, source, "yyyyMMdd", 8, LEFT, ' ', false, false, Map.of(), false);
    }
}
