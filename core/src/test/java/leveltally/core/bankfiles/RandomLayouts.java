package leveltally.core.bankfiles;

import static leveltally.core.bankfiles.LayoutField.constant;
import static leveltally.core.bankfiles.LayoutField.of;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Random;
import leveltally.core.bankfiles.LayoutField.Decimals;
import leveltally.core.bankfiles.LayoutField.Sign;
import leveltally.core.bankfiles.LayoutField.Substitutions;
import leveltally.core.money.Money;

/** Layouts and events by a seed. */
final class RandomLayouts {
    private static final Currency USD = Currency.getInstance("USD");
    static final BankFile.About ABOUT =
            new BankFile.About("990044105", "7700123412", USD, LocalDate.of(2026, 11, 13), 7);
    private static final LocalDate DAY = LocalDate.of(2026, 11, 13);

    private RandomLayouts() {}

    static List<BankFile.Item> items(Random random) {
        List<BankFile.Item> items = new ArrayList<>();
        int count = random.nextInt(12);
        for (int i = 0; i < count; i++) {
            long number = 1 + random.nextInt(99_999);
            LocalDate date = DAY.minusDays(random.nextInt(400));
            items.add(new BankFile.Item(
                    random.nextInt(3) == 0 ? BankFile.Item.Kind.VOID : BankFile.Item.Kind.ISSUE,
                    number,
                    (random.nextBoolean() ? "HW" : "") + number,
                    Money.ofMinor(1 + random.nextInt(random.nextBoolean() ? 100 : 99_999_999), USD),
                    date,
                    date.plusDays(random.nextInt(30)),
                    List.of("Gannet Rope Walk", "Tern & Daughters", "O'Malley; Sons", "Île de Gorse", "a,b \"c\"")
                            .get(random.nextInt(5))));
        }
        return items;
    }

    static Layout layout(Random random) {
        boolean fixed = random.nextBoolean();
        Shape shape = fixed
                ? new Shape.Fixed()
                : new Shape.Delimited(
                        ",;|\t".charAt(random.nextInt(4)),
                        "\"'".charAt(random.nextInt(2)),
                        Shape.Quoting.values()[random.nextInt(4)],
                        Shape.Escape.values()[random.nextInt(3)]);
        List<LayoutField> fields = new ArrayList<>(List.of(
                constant("record", "D"),
                of("kind", Source.KIND, fixed ? 5 : 0)
                        .with(
                                random.nextBoolean()
                                        ? Substitutions.NONE
                                        : new Substitutions(Map.of("VOID", "CN"), Substitutions.Missing.OTHER, "IS")),
                figure(random, of("number", Source.NUMBER, fixed ? 9 : 0)),
                figure(random, of("amount", Source.AMOUNT, fixed ? 14 : 0))
                        .with(Decimals.values()[random.nextInt(3)])
                        .signed(Sign.values()[random.nextInt(5)]),
                of("day", Source.EVENT_DATE, fixed ? 10 : 0)
                        .saying(List.of("yyyyMMdd", "dd.MM.yyyy", "MM/dd/yy", "yyyy-MM-dd")
                                .get(random.nextInt(4))),
                of("printed", Source.NUMBER_AS_PRINTED, fixed ? 12 : 0),
                of("payee", Source.PAYEE, fixed ? 20 : 0)));
        java.util.Collections.shuffle(fields.subList(1, fields.size()), random);
        return new Layout(
                "Random",
                List.of("UTF-8", "windows-1252", "UTF-16LE").get(random.nextInt(3)),
                random.nextInt(4) == 0,
                fixed ? Layout.LineEnd.values()[random.nextInt(3)] : Layout.LineEnd.CRLF,
                shape,
                "a.txt",
                List.of(
                        new LayoutRecord(LayoutRecord.Place.DETAIL, LayoutRecord.Tells.BOTH, fields),
                        new LayoutRecord(
                                LayoutRecord.Place.TRAILER,
                                LayoutRecord.Tells.BOTH,
                                List.of(
                                        constant("record", "T"),
                                        figure(random, of("count", Source.COUNT, fixed ? 6 : 0)),
                                        figure(random, of("total", Source.TOTAL, fixed ? 16 : 0)),
                                        figure(random, of("hash", Source.HASH, 4)),
                                        figure(random, of("records", Source.RECORD_COUNT, fixed ? 6 : 0))))));
    }

    private static LayoutField figure(Random random, LayoutField field) {
        return switch (random.nextInt(3)) {
            case 0 -> field.right('0');
            case 1 -> field.right(' ');
            default -> field;
        };
    }
}
