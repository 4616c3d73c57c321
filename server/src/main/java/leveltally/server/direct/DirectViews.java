package leveltally.server.direct;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.Purpose;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.WayToPay;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Puts payments without an invoice before those who look. */
@Component
class DirectViews {
    private final BankAccounts accounts;
    private final Batches batches;
    private final Accounts ledger;

    DirectViews(BankAccounts accounts, Batches batches, Accounts ledger) {
        this.accounts = accounts;
        this.batches = batches;
        this.ledger = ledger;
    }

    /** A way by which something can be paid here; {@code byCheck} where an address is enough. */
    record DirectWay(
            long account,
            String accountName,
            String currency,
            long way,
            String name,
            String methodWords,
            boolean byCheck,
            boolean byIban) {}

    /** What a batch pays, as it was typed. */
    record DirectBatch(
            long batch,
            long version,
            String stateWords,
            String name,
            String note,
            long account,
            long way,
            LocalDate checkDate,
            boolean editable,
            List<DirectRow> rows) {}

    /**
     * How typed rows are understood.
     *
     * @param total what the rows come to that are right; empty for none
     * @param problems how many are not
     */
    record DirectLooked(List<LookedDirect> rows, String total, int problems) {}

    /**
     * One of them.
     *
     * @param vendor null where nobody is called so
     * @param debits what it debits
     * @param problem why it cannot be paid so, by the field at fault; null where it can
     */
    record LookedDirect(
            @Nullable Long vendor,
            String payee,
            List<DirectDebit> debits,
            String says,
            @Nullable String problem,
            @Nullable String code,
            Map<String, String> fields) {}

    record DirectDebit(String what, String amount) {}

    @Transactional(readOnly = true)
    List<DirectWay> ways() {
        List<DirectWay> ways = new ArrayList<>();
        for (BankAccount account : accounts.list()) {
            if (account.closedOn() == null) {
                for (WayToPay way : account.payingWays()) {
                    ways.add(new DirectWay(
                            account.id().value(),
                            account.name(),
                            account.currency().getCurrencyCode(),
                            way.id().value(),
                            way.name(),
                            way.method().words(),
                            way.method() == PaymentMethod.CHECK,
                            way.method() != PaymentMethod.ACH));
                }
            }
        }
        return ways;
    }

    @Transactional(readOnly = true)
    DirectBatch batch(BatchId id, List<DirectRow> rows) {
        Batch batch = batches.get(id);
        return new DirectBatch(
                id.value(),
                batch.version(),
                batch.state().words(),
                batch.name(),
                batch.note(),
                batch.account().value(),
                batch.way().value(),
                batch.checkDate(),
                batch.purpose() == Purpose.DIRECT && batch.state() == BatchState.DRAFT,
                rows);
    }

    DirectLooked looked(List<DirectSeen> seen) {
        Map<Long, String> names = ledger.names();
        Money total = seen.stream()
                .filter(one -> one.problem() == null)
                .map(one -> Objects.requireNonNull(one.amount()))
                .reduce(Money::plus)
                .orElse(null);
        return new DirectLooked(
                seen.stream().map(one -> row(one, names)).toList(), total == null ? "" : total.toString(), (int)
                        seen.stream().filter(one -> one.problem() != null).count());
    }

    private static LookedDirect row(DirectSeen seen, Map<Long, String> names) {
        Refusal problem = seen.problem();
        return new LookedDirect(
                seen.vendor() == null ? null : seen.vendor().value(),
                seen.payee(),
                seen.paid() == null
                        ? List.of()
                        : seen.paid().lines().stream()
                                .flatMap(line -> debits(line, names))
                                .toList(),
                seen.says(),
                problem == null ? null : problem.sentence(),
                problem == null ? null : problem.code(),
                problem == null ? Map.of() : problem.fields());
    }

    private static Stream<DirectDebit> debits(ClaimLine line, Map<Long, String> names) {
        if (line instanceof ClaimLine.Direct direct) {
            return direct.accounts().stream()
                    .map(one -> new DirectDebit(
                            names.getOrDefault(one.account().value(), "")
                                    + (one.job().isEmpty() ? "" : ", job " + one.job()),
                            one.amount().toString()));
        }
        return line.ahead().stream()
                .map(ahead -> new DirectDebit(
                        ClaimLine.Prepayment.inWords(ahead.reference(), ahead.usableFrom()),
                        ahead.gross().toString()));
    }
}
