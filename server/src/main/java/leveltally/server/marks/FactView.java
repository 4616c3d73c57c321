package leveltally.server.marks;

import java.time.LocalDate;
import leveltally.core.marks.Fact;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * A fact as screens show it and as it is kept with what was sent.
 *
 * @param kind OTHER_INVOICE, CHANGE, USUAL or ITEM
 * @param range the usual amounts as a drawn range; only of USUAL
 */
public record FactView(
        String kind,
        String title,
        @Nullable Long invoice,
        @Nullable LocalDate date,
        @Nullable String amount,
        @Nullable String detail,
        @Nullable String before,
        @Nullable String after,
        @Nullable UsualRange range) {

    /** Amounts and where they lie between nothing and this payment, in percent. */
    public record UsualRange(
            int known, String low, String median, String high, String now, int lowAt, int medianAt, int highAt) {}

    static FactView of(Fact fact) {
        return fact.fold(new Fact.Cases<>() {
            @Override
            public FactView other(Fact.OtherInvoice other) {
                return new FactView(
                        "OTHER_INVOICE",
                        other.reference(),
                        other.id() == null ? null : other.id().value(),
                        other.date(),
                        other.amount().toString(),
                        other.payee() + ", " + other.where(),
                        null,
                        null,
                        null);
            }

            @Override
            public FactView change(Fact.Change change) {
                return new FactView(
                        "CHANGE",
                        change.what(),
                        null,
                        change.on(),
                        null,
                        "proposed by " + change.proposedBy() + ", confirmed by " + change.confirmedBy(),
                        change.before(),
                        change.after(),
                        null);
            }

            @Override
            public FactView usual(Fact.Usual usual) {
                UsualRange range = new UsualRange(
                        usual.known(),
                        usual.low().toString(),
                        usual.median().toString(),
                        usual.high().toString(),
                        usual.now().toString(),
                        percent(usual.low(), usual.now()),
                        percent(usual.median(), usual.now()),
                        percent(usual.high(), usual.now()));
                return new FactView("USUAL", "usual amounts", null, null, null, null, null, null, range);
            }

            @Override
            public FactView item(Fact.Item item) {
                return new FactView(
                        "ITEM", item.what(), null, item.date(), item.amount().toString(), null, null, null, null);
            }
        });
    }

    private static int percent(Money amount, Money of) {
        return (int) Math.min(100, Math.round(100.0 * amount.minor() / of.minor()));
    }
}
