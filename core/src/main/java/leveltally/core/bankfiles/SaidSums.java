package leveltally.core.bankfiles;

import java.util.Currency;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import leveltally.core.money.Money;

/** What a file that was read says of itself, held against what stands in it. */
final class SaidSums {
    private static final int LONGEST_SUM = 17;

    private final Layout layout;
    private final Currency currency;
    private final RecordReader.Values file;
    private final List<RecordReader.Event> events;

    SaidSums(Layout layout, Currency currency, RecordReader.Values file, List<RecordReader.Event> events) {
        this.layout = layout;
        this.currency = currency;
        this.file = file;
        this.events = events;
    }

    /** @throws leveltally.core.Refusal at the first sum that does not agree */
    void mustAgree(int records) {
        file.figure(Source.RECORD_COUNT).ifPresent(said -> agree("counts records as", said, (long) records));
        agree(Source.COUNT, Source.TOTAL, Source.HASH, "", event -> true);
        agree(Source.ISSUE_COUNT, Source.ISSUE_TOTAL, Source.ISSUE_HASH, "issues ", of(BankFile.Item.Kind.ISSUE));
        agree(Source.VOID_COUNT, Source.VOID_TOTAL, Source.VOID_HASH, "voids ", of(BankFile.Item.Kind.VOID));
    }

    private static Predicate<RecordReader.Event> of(BankFile.Item.Kind kind) {
        return event -> event.values().text(Source.KIND).equals(Optional.of(kind.name()));
    }

    private void agree(Source count, Source total, Source hash, String what, Predicate<RecordReader.Event> which) {
        List<RecordReader.Event> those = events.stream().filter(which).toList();
        file.figure(count).ifPresent(said -> agree("counts " + what + "as", said, (long) those.size()));
        file.amount(total).ifPresent(said -> agree("says that " + what + "come to", size(said), sum(those)));
        file.figure(hash).ifPresent(said -> agree("adds the numbers of " + what + "to", said, hash(hash, those)));
    }

    private Money sum(List<RecordReader.Event> those) {
        return Money.sum(
                those.stream()
                        .flatMap(event -> event.values().amount(Source.AMOUNT).stream())
                        .map(SaidSums::size)
                        .toList(),
                currency);
    }

    private static Money size(Money amount) {
        return amount.isNegative() ? amount.negated() : amount;
    }

    /** The numbers added up, of which a field too short holds the last digits. */
    private long hash(Source of, List<RecordReader.Event> those) {
        long sum = those.stream()
                .mapToLong(event -> event.values().figure(Source.NUMBER).orElse(0L))
                .sum();
        int width = layout.records().stream()
                .flatMap(record -> record.fields().stream())
                .filter(field -> field.source() == of)
                .mapToInt(LayoutField::width)
                .findFirst()
                .orElse(0);
        return width == 0 || width > LONGEST_SUM ? sum : sum % (long) Math.pow(10, width);
    }

    private static void agree(String what, Object said, Object found) {
        if (!said.equals(found)) {
            throw RecordReader.refused(
                    "does-not-agree",
                    "It " + what + " " + said + "; its records say " + found
                            + ". It may be cut off, or put together from two.");
        }
    }
}
