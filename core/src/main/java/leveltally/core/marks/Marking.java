package leveltally.core.marks;

import java.math.BigInteger;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.money.Money;

/** Finds what about a payment deserves a look: one method for each kind of mark. */
public final class Marking {
    /** Two invoices further apart than this are no duplicates of each other. */
    static final int DUPLICATE_DAYS = 365;

    /** A reference one digit off is suspicious only this close: numbers in a row are usual. */
    static final int DIGIT_DAYS = 7;

    /** How many of the last payments make the usual amount, and how few are too few to say. */
    static final int USUAL_OF = 12;

    static final int USUAL_LEAST = 5;
    static final int USUAL_TIMES = 3;

    /** Amounts just under a limit count together within so many days. */
    static final int LIMIT_DAYS = 30;

    private Marking() {}

    /** All marks of one payment, those that deserve the look most first. */
    public static List<Mark> of(Asked asked, Known known) {
        List<Mark> marks = new ArrayList<>(duplicates(asked, known.alike()));
        known.ahead().forEach(one -> marks.add(paidAhead(one)));
        changed(asked, known.changes()).ifPresent(marks::add);
        sentBack(asked, known.sentBack()).ifPresent(marks::add);
        farAbove(asked, known.past()).ifPresent(marks::add);
        justUnder(asked, known).ifPresent(marks::add);
        if (asked.oneTime()) {
            marks.add(new Mark(
                    MarkKind.ONE_TIME,
                    key(MarkKind.ONE_TIME, asked),
                    asked.payee() + " is a one-time payee: nothing about it was proved by earlier payments.",
                    List.of()));
        } else if (known.past().isEmpty()) {
            marks.add(new Mark(
                    MarkKind.FIRST_PAYMENT,
                    key(MarkKind.FIRST_PAYMENT, asked),
                    "This is the first payment to " + asked.payee() + ".",
                    List.of()));
        }
        marks.sort(Comparator.comparing(Mark::kind));
        return List.copyOf(marks);
    }

    private static List<Mark> duplicates(Asked asked, List<KnownInvoice> alike) {
        List<Mark> marks = new ArrayList<>();
        for (KnownInvoice paid : asked.invoices()) {
            for (KnownInvoice other : alike) {
                Likeness likeness = Likeness.of(paid.reference(), other.reference());
                // of two paid here the earlier one tells of both
                boolean told = other.isBefore(paid)
                        && asked.invoices().stream().anyMatch(one -> one.key().equals(other.key()));
                if (!told && !paid.key().equals(other.key()) && isSuspicious(paid, other, likeness)) {
                    marks.add(new Mark(
                            MarkKind.DUPLICATE,
                            "DUPLICATE "
                                    + (paid.isBefore(other)
                                            ? paid.key() + " " + other.key()
                                            : other.key() + " " + paid.key()),
                            paid.reference() + " may be a duplicate of " + other.reference()
                                    + (paid.vendor().equals(other.vendor()) ? "" : " of " + other.payee())
                                    + ": the same amount, " + paid.amount() + ", and " + likeness.words() + ".",
                            List.of(other(other))));
                }
            }
        }
        return marks;
    }

    private static Mark paidAhead(KnownInvoice one) {
        return new Mark(
                MarkKind.PAID_AHEAD,
                MarkKind.PAID_AHEAD.name() + " " + one.key(),
                one.amount() + " was paid ahead of " + one.reference()
                        + " and is matched with nothing yet: this payment would pay as much again.",
                List.of(other(one)));
    }

    private static Fact.OtherInvoice other(KnownInvoice one) {
        return new Fact.OtherInvoice(one.id(), one.payee(), one.reference(), one.date(), one.amount(), one.where());
    }

    private static boolean isSuspicious(KnownInvoice paid, KnownInvoice other, Likeness likeness) {
        long apart = apart(paid.date(), other.date());
        return paid.amount().equals(other.amount())
                && apart <= DUPLICATE_DAYS
                && switch (likeness) {
                    case SAME, ONE_SWAP -> true;
                    case ONE_DIGIT -> apart <= DIGIT_DAYS;
                    case OTHER -> false;
                };
    }

    private static Optional<Mark> changed(Asked asked, List<Fact.Change> changes) {
        if (changes.isEmpty()) {
            return Optional.empty();
        }
        Fact.Change last =
                changes.stream().max(Comparator.comparing(Fact.Change::on)).orElseThrow();
        return Optional.of(new Mark(
                MarkKind.CHANGED_PAYEE,
                key(MarkKind.CHANGED_PAYEE, asked) + " " + last.on(),
                "The " + last.what() + " of " + asked.payee() + " changed on " + Dates.inWords(last.on()) + ".",
                List.copyOf(changes)));
    }

    private static Optional<Mark> sentBack(Asked asked, List<SentBack> all) {
        return all.stream()
                .findFirst()
                .map(last -> new Mark(
                        MarkKind.SENT_BACK,
                        key(MarkKind.SENT_BACK, asked) + " " + last.called(),
                        "The bank sent " + last.called() + " to " + asked.payee() + " back on "
                                + Dates.inWords(last.on()) + " (" + last.why()
                                + "), and its bank details are the same as then.",
                        List.of()));
    }

    /** Over three times the median of its last twelve, where at least five are known. */
    private static Optional<Mark> farAbove(Asked asked, List<PastPayment> past) {
        List<Money> last =
                past.stream().map(PastPayment::amount).limit(USUAL_OF).sorted().toList();
        if (last.size() < USUAL_LEAST) {
            return Optional.empty();
        }
        // the middle two, or the middle one twice: twice the median, so that nothing is rounded
        BigInteger twice = BigInteger.valueOf(last.get((last.size() - 1) / 2).minor())
                .add(BigInteger.valueOf(last.get(last.size() / 2).minor()));
        BigInteger now = BigInteger.valueOf(asked.amount().minor());
        if (now.shiftLeft(1).compareTo(twice.multiply(BigInteger.valueOf(USUAL_TIMES))) <= 0) {
            return Optional.empty();
        }
        Money median = Money.ofMinor(
                twice.add(BigInteger.ONE).shiftRight(1).longValueExact(),
                asked.amount().currency());
        return Optional.of(new Mark(
                MarkKind.FAR_ABOVE,
                key(MarkKind.FAR_ABOVE, asked) + " " + asked.amount().plain(),
                asked.amount() + " is more than " + USUAL_TIMES + " times the usual " + median + " of the last "
                        + last.size() + " payments to " + asked.payee() + ".",
                List.of(new Fact.Usual(last.size(), last.get(0), median, last.get(last.size() - 1), asked.amount()))));
    }

    /** Two or more at 90 to 100% of a limit within thirty days, together above it: payments, or invoices behind them. */
    private static Optional<Mark> justUnder(Asked asked, Known known) {
        List<Fact.Item> payments = new ArrayList<>();
        known.others().forEach(p -> payments.add(new Fact.Item(p.what(), p.checkDate(), p.amount())));
        known.past().forEach(p -> payments.add(new Fact.Item(p.what(), p.checkDate(), p.amount())));
        List<Fact.Item> invoices = new ArrayList<>();
        known.open().forEach(i -> invoices.add(item(i)));
        List<Fact.Item> own = asked.invoices().stream().map(Marking::item).toList();
        Fact.Item payment = new Fact.Item("this payment", asked.checkDate(), asked.amount());
        return known.limits().stream()
                .sorted(Comparator.reverseOrder())
                .flatMap(limit -> around(asked, limit, List.of(payment), payments, "payments to")
                        .or(() -> around(asked, limit, own, invoices, "invoices of"))
                        .stream())
                .findFirst();
    }

    private static Fact.Item item(KnownInvoice invoice) {
        return new Fact.Item(invoice.reference(), invoice.date(), invoice.amount());
    }

    private static Optional<Mark> around(
            Asked asked, Money limit, List<Fact.Item> own, List<Fact.Item> others, String what) {
        List<Fact.Item> near =
                own.stream().filter(item -> isJustUnder(item.amount(), limit)).toList();
        for (Fact.Item one : near) {
            List<Fact.Item> together = new ArrayList<>();
            near.stream().filter(item -> isWithin(one, item)).forEach(together::add);
            others.stream()
                    .filter(item -> isJustUnder(item.amount(), limit) && isWithin(one, item))
                    .forEach(together::add);
            Money sum = Money.sum(together.stream().map(Fact.Item::amount).toList(), limit.currency());
            if (together.size() >= 2 && sum.compareTo(limit) > 0) {
                return Optional.of(new Mark(
                        MarkKind.JUST_UNDER,
                        key(MarkKind.JUST_UNDER, asked) + " " + limit.plain(),
                        together.size() + " " + what + " " + asked.payee() + " within " + LIMIT_DAYS
                                + " days are just under the limit of " + limit + "; together they are " + sum + ".",
                        List.copyOf(together)));
            }
        }
        return Optional.empty();
    }

    private static boolean isWithin(Fact.Item one, Fact.Item other) {
        return apart(one.date(), other.date()) <= LIMIT_DAYS;
    }

    private static boolean isJustUnder(Money amount, Money limit) {
        BigInteger ten = BigInteger.TEN.multiply(BigInteger.valueOf(amount.minor()));
        return amount.currency().equals(limit.currency())
                && ten.compareTo(BigInteger.valueOf(9).multiply(BigInteger.valueOf(limit.minor()))) >= 0
                && amount.compareTo(limit) <= 0;
    }

    private static long apart(LocalDate one, LocalDate other) {
        return Math.abs(ChronoUnit.DAYS.between(one, other));
    }

    private static String key(MarkKind kind, Asked asked) {
        return kind.name() + " " + asked.vendor().value();
    }
}
