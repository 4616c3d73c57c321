package leveltally.server.outside;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimLine;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.WayToPay;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Puts what is recorded before those who look. */
@Component
class OutsideViews {
    private final BankAccounts accounts;
    private final Series series;
    private final Batches batches;
    private final Accounts ledger;

    OutsideViews(BankAccounts accounts, Series series, Batches batches, Accounts ledger) {
        this.accounts = accounts;
        this.series = series;
        this.batches = batches;
        this.ledger = ledger;
    }

    /** Those that are only recorded first, then the printed checks, one of which may turn out to be written by hand. */
    @Transactional(readOnly = true)
    List<OutsideWay> ways() {
        List<OutsideWay> ways = new ArrayList<>();
        List<OutsideWay> printed = new ArrayList<>();
        for (BankAccount account : accounts.list()) {
            if (account.closedOn() != null) {
                continue;
            }
            for (WayToPay way : account.ways()) {
                if (way.recordedOnly()) {
                    ways.add(view(account, way));
                } else if (way.method() == PaymentMethod.CHECK) {
                    printed.add(view(account, way));
                }
            }
        }
        ways.addAll(printed);
        return ways;
    }

    private OutsideWay view(BankAccount account, WayToPay way) {
        return new OutsideWay(
                account.id().value(),
                account.name(),
                account.currency().getCurrencyCode(),
                way.id().value(),
                way.name(),
                way.method().name(),
                way.method().words(),
                way.recordedOnly(),
                way.method() == PaymentMethod.CHECK
                        ? numbers(series.of(way.id()))
                        : "as the bank or the issuer gave them");
    }

    private static String numbers(NumberSeries of) {
        String prefix = of.range().prefix();
        return of.stock().isPrinted()
                ? "an unaccounted one, or from " + of.nextNumber() + " on"
                : prefix + of.range().first() + " and on";
    }

    @Transactional(readOnly = true)
    OutsideBatch batch(BatchId id, List<OutsideRow> rows) {
        Batch batch = batches.get(id);
        return new OutsideBatch(
                id.value(),
                batch.version(),
                batch.state().name(),
                batch.state().words(),
                batch.name(),
                batch.note(),
                batch.account().value(),
                batch.way().value(),
                batch.purpose().isAfterTheFact() && batch.state() == BatchState.DRAFT,
                rows);
    }

    OutsideLooked looked(List<OutsideSeen> seen) {
        Map<Long, String> names = ledger.names();
        Money total = seen.stream()
                .filter(one -> one.problem() == null)
                .map(one -> Objects.requireNonNull(one.amount()))
                .reduce(Money::plus)
                .orElse(null);
        return new OutsideLooked(
                seen.stream().map(one -> row(one, names)).toList(), total == null ? "" : total.toString(), (int)
                        seen.stream().filter(one -> one.problem() != null).count());
    }

    private static OutsideLooked.LookedRow row(OutsideSeen seen, Map<Long, String> names) {
        Refusal problem = seen.problem();
        Money amount = seen.amount();
        return new OutsideLooked.LookedRow(
                seen.number(),
                seen.row().paidOn(),
                seen.ledgerDate(),
                seen.vendor() == null ? null : seen.vendor().value(),
                seen.payee(),
                amount == null ? "" : amount.toString(),
                seen.paid() == null
                        ? List.of()
                        : seen.paid().lines().stream()
                                .flatMap(line -> settles(line, names))
                                .toList(),
                seen.says(),
                problem == null ? null : problem.sentence(),
                problem == null ? Map.of() : problem.fields());
    }

    private static Stream<OutsideLooked.Settles> settles(ClaimLine line, Map<Long, String> names) {
        if (line instanceof ClaimLine.Direct direct) {
            return direct.accounts().stream()
                    .map(one -> new OutsideLooked.Settles(
                            names.getOrDefault(one.account().value(), "")
                                    + (one.job().isEmpty() ? "" : ", job " + one.job()),
                            one.amount().toString(),
                            ""));
        }
        return Stream.of(new OutsideLooked.Settles(
                line.ahead()
                        .map(ahead -> ClaimLine.Prepayment.inWords(ahead.reference(), ahead.usableFrom()))
                        .orElse(line.reference()),
                line.gross().toString(),
                line.discount().isZero() ? "" : line.discount().toString()));
    }
}
