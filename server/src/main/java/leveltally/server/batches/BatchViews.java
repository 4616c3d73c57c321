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
import leveltally.core.batches.Leaving;
import leveltally.core.batches.LineTotals;
import leveltally.core.batches.Purpose;
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
                batch.method().words(),
                batch.checkDate(),
                batch.ledgerDate(),
                batch.state().name(),
                Leaving.of(batch.method(), batch.purpose()).inWords(batch.state()),
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
                row.question != null,
                !row.purpose.isEdited(),
                row.purpose.name(),
                Leaving.of(batch.method(), batch.purpose()));
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
            String held,
            String number) {}

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
                        SELECT c.id, c.vendor_id, c.payee, c.address, c.remit_to_id, c.amount_minor, c.apart, b.purpose, c.stub_note,
                          COALESCE(v.hold_reason, '') AS vendor_held, COALESCE(l.invoice_id, -l.id) AS entry, l.kind, l.reference, l.usable_from,
                          COALESCE(l.invoice_date, b.check_date) AS invoice_date, COALESCE(i.due_date, b.check_date) AS due_date,
                          COALESCE(i.open_minor, 0) AS open_minor, l.gross_minor, l.discount_minor, l.credit_minor, l.cash_minor, l.part, l.by_hand,
                          l.hidden, l.own_check, COALESCE(i.hold_reason, '') AS invoice_held,
                          COALESCE(o.number, '') AS outside_number,
                          COALESCE((SELECT GROUP_CONCAT(CONCAT(a.code, ' ', a.name, IF(x.job = '', '', CONCAT(', job ', x.job)))
                            ORDER BY x.position SEPARATOR '; ') FROM claim_line_account x
                            JOIN ledger_account a ON a.id = x.account_id WHERE x.line_id = l.id), '') AS accounts
                        FROM standing_claim c JOIN vendor v ON v.id = c.vendor_id JOIN claim_line l ON l.claim_id = c.id
                        JOIN batch b ON b.id = c.batch_id LEFT JOIN invoice i ON i.id = l.invoice_id
                        LEFT JOIN outside_entry o ON o.claim_id = c.id
                        WHERE c.batch_id = :batch ORDER BY c.order_key, c.id, l.kind DESC, l.invoice_date, l.invoice_id
                        """).param("batch", id.value()).query((java.sql.ResultSet r) -> {
            long claim = r.getLong("id");
            if (!heads.containsKey(claim)) {
                Money amount = Money.ofMinor(r.getLong("amount_minor"), account.currency());
                sums[0] = sums[0].plus(amount);
                heads.put(
                        claim,
                        new Head(
                                claim,
                                r.getLong("vendor_id"),
                                r.getString("payee"),
                                r.getString("address"),
                                r.getLong("remit_to_id"),
                                amount,
                                r.getBoolean("apart")
                                        && Purpose.valueOf(r.getString("purpose"))
                                                .isEdited(),
                                r.getString("stub_note"),
                                r.getString("vendor_held"),
                                r.getString("outside_number")));
                lines.put(claim, new ArrayList<>());
            }
            Money discount = Money.ofMinor(r.getLong("discount_minor"), account.currency());
            Money credit = Money.ofMinor(r.getLong("credit_minor"), account.currency());
            boolean isCredit = r.getString("kind").equals("CREDIT");
            sums[1] = sums[1].plus(discount);
            sums[2] = isCredit ? sums[2].plus(credit) : sums[2];
            Money gross = Money.ofMinor(r.getLong("gross_minor"), account.currency());
            lines.get(claim)
                    .add(new BatchController.LineView(
                            r.getLong("entry"),
                            r.getString("kind"),
                            r.getString("reference"),
                            r.getObject("invoice_date", LocalDate.class),
                            r.getObject("due_date", LocalDate.class),
                            Money.ofMinor(r.getLong("open_minor"), account.currency())
                                    .toString(),
                            (isCredit ? gross.negated() : gross).toString(),
                            discount.isZero() ? "" : discount.toString(),
                            credit.isZero() || isCredit ? "" : credit.toString(),
                            Money.ofMinor(r.getLong("cash_minor"), account.currency())
                                    .toString(),
                            r.getBoolean("part"),
                            r.getBoolean("by_hand"),
                            r.getBoolean("hidden"),
                            r.getBoolean("own_check"),
                            r.getString("invoice_held"),
                            debits(r)));
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
                        h.number(),
                        lines.get(h.id())))
                .toList();
    }

    /** What a line without an invoice is for. */
    private static String debits(java.sql.ResultSet r) throws java.sql.SQLException {
        String accounts = r.getString("accounts");
        if (r.getString("kind").equals("PREPAYMENT")) {
            return ClaimLine.Prepayment.inWords(r.getString("reference"), r.getObject("usable_from", LocalDate.class))
                    + ": " + accounts;
        }
        // what was paid elsewhere is called by its number already
        return accounts.isEmpty() || !r.getString("outside_number").isEmpty()
                ? accounts
                : r.getString("reference") + ": " + accounts;
    }

    private List<BatchController.ApprovalView> approvals(Batch batch) {
        return jdbc.sql("""
                        SELECT p.name, CASE WHEN a.on_behalf_of <> a.person_id THEN o.name END AS on_behalf_of, a.outcome, a.reason, a.at,
                          a.round
                        FROM approval a JOIN person p ON p.id = a.person_id JOIN person o ON o.id = a.on_behalf_of
                        WHERE a.batch_id = :batch ORDER BY a.at DESC
                        """)
                .param("batch", batch.id().value())
                .query((r, n) -> new BatchController.ApprovalView(
                        r.getString("name"),
                        r.getString("on_behalf_of"),
                        r.getString("outcome"),
                        r.getString("reason"),
                        r.getTimestamp("at").toInstant(),
                        r.getInt("round") == batch.approvalRound()))
                .list();
    }
}
