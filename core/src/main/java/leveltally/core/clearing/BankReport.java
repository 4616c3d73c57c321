package leveltally.core.clearing;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.RecordReader;
import leveltally.core.bankfiles.Source;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * What a bank tells of an account in one file: a statement with its balances, or a list of checks it paid.
 *
 * @param account its number as the file has it; empty where it has none
 * @param number of the statement; empty where it has none
 * @param from the first day it tells of, {@code to} the last
 * @param opening the balance before its first movement; null for a list
 * @param closing the balance after its last; null for a list
 */
public record BankReport(
        String account,
        String number,
        LocalDate from,
        LocalDate to,
        @Nullable Money opening,
        @Nullable Money closing,
        List<Movement> movements) {
    public BankReport {
        movements = List.copyOf(movements);
    }

    /** Whether it has balances. */
    public boolean isStatement() {
        return opening != null && closing != null;
    }

    /**
     * Takes what was read by a layout as what it tells.
     *
     * @throws Refusal when a movement lacks what it needs, or the balances do not follow from the movements
     */
    public static BankReport of(Layout layout, RecordReader.Read read) {
        read.findings().stream().findFirst().ifPresent(first -> {
            int more = read.findings().size() - 1;
            throw Refusal.invalidField(
                    "bank-file-unreadable",
                    "file",
                    "Nothing was read of this file. Line " + first.line() + ", field " + first.field() + ": "
                            + first.sentence() + (more == 0 ? "" : " " + more + " more like it follow."));
        });
        List<Movement> movements = read.events().stream()
                .map(event -> movement(layout.use(), event))
                .toList();
        RecordReader.Values file = read.file();
        boolean statement = layout.use() == Layout.Use.STATEMENT;
        Optional<LocalDate> first = movements.stream().map(Movement::day).min(LocalDate::compareTo);
        Optional<LocalDate> last = movements.stream().map(Movement::day).max(LocalDate::compareTo);
        LocalDate to = file.day(Source.TO_DATE)
                .filter(day -> last.isEmpty() || !day.isBefore(last.get()))
                .or(() -> last)
                .or(() -> file.day(Source.FILE_DATE))
                .orElseThrow(() -> Refusal.invalidField(
                        "bank-file-no-day",
                        "file",
                        "The file tells of no movement and of no day, so it says nothing."));
        BankReport report = new BankReport(
                file.text(Source.ACCOUNT_NUMBER)
                        .or(() -> read.events().stream()
                                .findFirst()
                                .flatMap(event -> event.values().text(Source.ACCOUNT_NUMBER)))
                        .orElse(""),
                file.figure(Source.FILE_SERIAL).map(String::valueOf).orElse(""),
                file.day(Source.FROM_DATE)
                        .filter(day -> first.isEmpty() || !day.isAfter(first.get()))
                        .or(() -> first)
                        .orElse(to),
                to,
                statement ? balance(read, Source.OPENING_BALANCE, true) : null,
                statement ? balance(read, Source.CLOSING_BALANCE, false) : null,
                movements);
        report.mustAddUp();
        return report;
    }

    private static Movement movement(Layout.Use use, RecordReader.Event event) {
        RecordReader.Values values = event.values();
        LocalDate day = values.day(Source.EVENT_DATE).orElseThrow(() -> missing(event, "day"));
        String number = values.text(Source.NUMBER_AS_PRINTED)
                .or(() -> values.figure(Source.NUMBER).filter(one -> one != 0).map(String::valueOf))
                .orElse("");
        if (use == Layout.Use.PAID_CHECKS && number.isEmpty()) {
            throw missing(event, "number of a check");
        }
        Money amount = signed(use, event);
        return new Movement(
                day,
                amount,
                number,
                values.text(Source.TEXT).or(() -> values.text(Source.PAYEE)).orElse(""),
                values.text(Source.REFERENCE).orElse(""),
                use == Layout.Use.PAID_CHECKS && amount.isPositive());
    }

    /** Out of the account below zero: a check that was paid, or what stands under OUT. */
    private static Money signed(Layout.Use use, RecordReader.Event event) {
        RecordReader.Values values = event.values();
        Optional<Money> out = values.amount(Source.AMOUNT_OUT).filter(amount -> !amount.isZero());
        Optional<Money> in = values.amount(Source.AMOUNT_IN).filter(amount -> !amount.isZero());
        if (out.isPresent() || in.isPresent()) {
            if (out.isPresent() && in.isPresent()) {
                throw Refusal.invalidField(
                        "bank-file-both",
                        "file",
                        "Nothing was read of this file. Line " + event.line() + " has an amount that went out and one"
                                + " that came in.");
            }
            return out.map(amount -> amount.isNegative() ? amount : amount.negated())
                    .orElseGet(in::orElseThrow);
        }
        Money amount = values.amount(Source.AMOUNT).orElseThrow(() -> missing(event, "amount"));
        String kind = values.text(Source.KIND).orElse("");
        boolean paid = use == Layout.Use.PAID_CHECKS;
        return switch (kind) {
            case "PAID", "OUT" -> amount.isNegative() ? amount : amount.negated();
            case "REVERSED", "IN" -> amount.isNegative() ? amount.negated() : amount;
            case "" -> paid ? amount.negated() : amount;
            default ->
                throw Refusal.invalidField(
                        "bank-file-kind",
                        "file",
                        "Nothing was read of this file. Line " + event.line() + " calls its movement “" + kind
                                + "”, which is none of PAID, REVERSED, OUT and IN. Say in the layout what it stands for.");
        };
    }

    private static Refusal missing(RecordReader.Event event, String what) {
        return Refusal.invalidField(
                "bank-file-missing",
                "file",
                "Nothing was read of this file. Line " + event.line() + " has no " + what + ".");
    }

    /** What header or trailer says, or what follows from the balance after the first or last movement. */
    private static @Nullable Money balance(RecordReader.Read read, Source said, boolean before) {
        Optional<Money> of = read.file().amount(said);
        if (of.isPresent() || read.events().isEmpty()) {
            return of.orElse(null);
        }
        RecordReader.Event event = read.events().get(before ? 0 : read.events().size() - 1);
        return event.values()
                .amount(Source.BALANCE)
                .map(after -> before ? after.minus(signed(Layout.Use.STATEMENT, event)) : after)
                .orElse(null);
    }

    /** @throws Refusal unless opening + movements = closing */
    public void mustAddUp() {
        if (opening == null || closing == null) {
            return;
        }
        Money sum = Money.sum(movements.stream().map(Movement::amount).toList(), opening.currency());
        Money reached = opening.plus(sum);
        if (!reached.equals(closing)) {
            throw Refusal.invalidField(
                    "statement-does-not-add-up",
                    "file",
                    "Nothing was read of this statement. It begins with " + opening + ", its movements come to "
                            + sum + ", so it should end with " + reached + ", but it says "
                            + closing + ". Ask the bank for a whole one.");
        }
    }

    /**
     * Whether it goes on where the one before ended.
     *
     * @return a sentence that says what is missing; empty where nothing is
     */
    public Optional<String> gapAfter(String number, LocalDate to, Money closing) {
        if (opening == null) {
            return Optional.empty();
        }
        List<String> gaps = new java.util.ArrayList<>();
        if (!opening.equals(closing)) {
            gaps.add("it begins with " + opening + ", the one before ended on " + Dates.inWords(to) + " with "
                    + closing);
        }
        if (isWhole(this.number) && isWhole(number) && Long.parseLong(this.number) != Long.parseLong(number) + 1) {
            gaps.add("its number is " + this.number + ", the one before was " + number);
        }
        if (from.isBefore(to)) {
            gaps.add("it begins on " + Dates.inWords(from) + ", before the one before ended");
        }
        return gaps.isEmpty()
                ? Optional.empty()
                : Optional.of("This statement does not follow the last one: " + String.join("; ", gaps) + ".");
    }

    private static boolean isWhole(String number) {
        return number.matches("\\d{1,18}");
    }
}
