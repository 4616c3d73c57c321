package leveltally.server.batches;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.LineTotals;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.people.PersonId;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.people.People;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** A batch as its page shows it; a fixed number of statements, whatever its size. */
@Component
class BatchViews {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Steps steps;
    private final BankAccounts accounts;
    private final People people;
    private final JdbcClient jdbc;

    BatchViews(
            Batches batches, ClaimRows claimRows, Steps steps, BankAccounts accounts, People people, JdbcClient jdbc) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.steps = steps;
        this.accounts = accounts;
        this.people = people;
        this.jdbc = jdbc;
    }

    private record Totals(Money amount, Money saved, Money credited) {}

    @Transactional(readOnly = true)
    BatchController.BatchView of(BatchId id) {
        Batch batch = batches.get(id);
        BatchEntity row = batches.row(id);
        BankAccount account = accounts.get(batch.account());
        Map<Long, String> names = people.names();
        Money[] sums = {Money.zero(account.currency()), Money.zero(account.currency()), Money.zero(account.currency())};
        List<BatchController.ClaimView> claims = claims(id, account, sums);
        Totals totals = new Totals(sums[0], sums[1], sums[2]);
        List<EditLog.Entry> changes = steps.changes(id);
        boolean draft = batch.state() == BatchState.DRAFT;
        return new BatchController.BatchView(
                id.value(),
                batch.version(),
                batch.name(),
                batch.note(),
                account.id().value(),
                account.name(),
                account.currency().getCurrencyCode(),
                batch.method().name(),
                batch.checkDate(),
                batch.ledgerDate(),
                batch.state().name(),
                batch.state().words(),
                names.getOrDefault(batch.preparedBy().value(), "Somebody"),
                batches.hands(id).stream()
                        .map(PersonId::value)
                        .map(names::get)
                        .sorted()
                        .toList(),
                batch.sentBackReason(),
                totals.amount().toString(),
                totals.saved().toString(),
                totals.credited().isZero() ? null : totals.credited().toString(),
                claims,
                approvals(batch),
                changes.stream()
                        .map(e -> new BatchController.EditView(
                                e.step(),
                                e.what(),
                                e.who(),
                                e.at(),
                                e.state().name(),
                                Money.ofMinor(e.amountMinor(), account.currency())
                                        .toString()))
                        .toList(),
                draft ? what(changes, EditLog.State.DONE, true) : null,
                draft ? what(changes, EditLog.State.UNDONE, false) : null,
                row.claimOrder.words(),
                row.question != null);
    }

    /** The step that would be undone (the last done) or done again (the first undone). */
    private static @org.jspecify.annotations.Nullable String what(
            List<EditLog.Entry> changes, EditLog.State state, boolean newest) {
        String found = null;
        for (EditLog.Entry entry : changes) {
            if (entry.state() == state) {
                found = entry.what();
                if (newest) {
                    return found;
                }
            }
        }
        return found;
    }

    private record Head(
            long id,
            long vendor,
            String payee,
            String address,
            long remitTo,
            Money amount,
            boolean apart,
            String note,
            String held) {}

    /** What these lines come to. */
    @Transactional(readOnly = true)
    LineTotals totals(BatchId id, Set<InvoiceId> wanted) {
        List<ClaimLine> lines = claimRows.of(id).stream()
                .flatMap(claim -> claim.lines().stream())
                .filter(line -> line.item().filter(wanted::contains).isPresent())
                .toList();
        return LineTotals.of(lines, accounts.get(batches.get(id).account()).currency());
    }

    private List<BatchController.ClaimView> claims(BatchId id, BankAccount account, Money[] sums) {
        Map<Long, Head> heads = new LinkedHashMap<>();
        Map<Long, List<BatchController.LineView>> lines = new HashMap<>();
        jdbc.sql("""
                        SELECT c.id, c.vendor_id, c.payee, c.address, c.remit_to_id, c.amount_minor, c.apart, c.stub_note,
                          COALESCE(v.hold_reason, ''), l.invoice_id, l.kind, l.reference, l.invoice_date, i.due_date,
                          i.open_minor, l.gross_minor, l.discount_minor, l.credit_minor, l.cash_minor, l.part, l.by_hand,
                          l.hidden, l.own_check, COALESCE(i.hold_reason, '')
                        FROM standing_claim c JOIN vendor v ON v.id = c.vendor_id JOIN claim_line l ON l.claim_id = c.id
                        JOIN invoice i ON i.id = l.invoice_id
                        WHERE c.batch_id = :batch ORDER BY c.order_key, c.id, l.kind DESC, l.invoice_date, l.invoice_id
                        """).param("batch", id.value()).query((java.sql.ResultSet r) -> {
            long claim = r.getLong(1);
            if (!heads.containsKey(claim)) {
                Money amount = Money.ofMinor(r.getLong(6), account.currency());
                sums[0] = sums[0].plus(amount);
                heads.put(
                        claim,
                        new Head(
                                claim,
                                r.getLong(2),
                                r.getString(3),
                                r.getString(4),
                                r.getLong(5),
                                amount,
                                r.getBoolean(7),
                                r.getString(8),
                                r.getString(9)));
                lines.put(claim, new ArrayList<>());
            }
            Money discount = Money.ofMinor(r.getLong(17), account.currency());
            Money credit = Money.ofMinor(r.getLong(18), account.currency());
            boolean isCredit = r.getString(11).equals("CREDIT");
            sums[1] = sums[1].plus(discount);
            sums[2] = isCredit ? sums[2].plus(credit) : sums[2];
            Money gross = Money.ofMinor(r.getLong(16), account.currency());
            lines.get(claim)
                    .add(new BatchController.LineView(
                            r.getLong(10),
                            r.getString(11),
                            r.getString(12),
                            r.getObject(13, LocalDate.class),
                            r.getObject(14, LocalDate.class),
                            Money.ofMinor(r.getLong(15), account.currency()).toString(),
                            (isCredit ? gross.negated() : gross).toString(),
                            discount.isZero() ? "" : discount.toString(),
                            credit.isZero() || isCredit ? "" : credit.toString(),
                            Money.ofMinor(r.getLong(19), account.currency()).toString(),
                            r.getBoolean(20),
                            r.getBoolean(21),
                            r.getBoolean(22),
                            r.getBoolean(23),
                            r.getString(24)));
        });
        return heads.values().stream()
                .map(h -> new BatchController.ClaimView(
                        h.id(),
                        h.vendor(),
                        h.payee(),
                        h.address().replace("\n", ", "),
                        h.remitTo(),
                        h.amount().toString(),
                        h.apart(),
                        h.note(),
                        h.held(),
                        lines.get(h.id())))
                .toList();
    }

    private List<BatchController.ApprovalView> approvals(Batch batch) {
        return jdbc.sql("""
                        SELECT p.name, CASE WHEN a.on_behalf_of <> a.person_id THEN o.name END, a.outcome, a.reason, a.at,
                          a.round
                        FROM approval a JOIN person p ON p.id = a.person_id JOIN person o ON o.id = a.on_behalf_of
                        WHERE a.batch_id = :batch ORDER BY a.at DESC
                        """)
                .param("batch", batch.id().value())
                .query((r, n) -> new BatchController.ApprovalView(
                        r.getString(1),
                        r.getString(2),
                        r.getString(3),
                        r.getString(4),
                        r.getTimestamp(5).toInstant(),
                        r.getInt(6) == batch.approvalRound()))
                .list();
    }
}
