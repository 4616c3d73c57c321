package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Criteria;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.approval.Sending;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Reissues;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.payments.Payment;
import leveltally.server.payments.Payments;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Reissues checks: the old one is stopped at once and its lines are reserved for one new payment, which goes through approval;
 * posting that voids the old one in the same transaction. Until then, or when approval is refused, the old one stays stopped.
 */
@Service
public class Reissuing {
    private final Payments payments;
    private final Checks checks;
    private final Stops stops;
    private final UndoLook looks;
    private final UndoingRows rows;
    private final Reissues reissues;
    private final Batches batches;
    private final Sending sending;
    private final BankAccounts accounts;
    private final Periods periods;
    private final AuditTrail audit;
    private final JdbcClient jdbc;

    Reissuing(
            Payments payments,
            Checks checks,
            Stops stops,
            UndoLook looks,
            UndoingRows rows,
            Reissues reissues,
            Batches batches,
            Sending sending,
            BankAccounts accounts,
            Periods periods,
            AuditTrail audit,
            JdbcClient jdbc) {
        this.payments = payments;
        this.checks = checks;
        this.stops = stops;
        this.looks = looks;
        this.rows = rows;
        this.reissues = reissues;
        this.batches = batches;
        this.sending = sending;
        this.accounts = accounts;
        this.periods = periods;
        this.audit = audit;
        this.jdbc = jdbc;
    }

    /**
     * How a check is paid once more.
     *
     * @param ledgerDate null: the check date
     * @param remitTo an address of the vendor; null: where the old one went
     * @param way another way to pay, of an account in the same currency; null: the old one's
     */
    public record Once(
            LocalDate checkDate,
            @Nullable LocalDate ledgerDate,
            @Nullable Long remitTo,
            @Nullable Long way,
            String reason) {}

    /** An address it can go to, or a way it can be paid. */
    public record ReissueChoice(long id, String words, boolean usual) {}

    /** What there is to choose for paying a payment once more. */
    public record ReissueChoices(List<ReissueChoice> addresses, List<ReissueChoice> ways) {}

    @Transactional(readOnly = true)
    public ReissueChoices choices(PaymentId id) {
        Payment payment = payments.get(id);
        List<ReissueChoice> addresses =
                jdbc.sql("""
                        SELECT r.id, CONCAT(r.payee, ', ', REPLACE(r.address, '\n', ', ')) AS words, r.id = c.remit_to_id AS usual
                        FROM payment p JOIN claim c ON c.id = p.claim_id
                        JOIN remit_to r ON r.vendor_id = p.vendor_id AND r.in_force WHERE p.id = ? ORDER BY usual DESC, r.id
                        """).param(id.value()).query(ReissueChoice.class).list();
        List<ReissueChoice> ways = jdbc.sql("""
                        SELECT w.id, CONCAT(a.name, ', ', w.name) AS words, w.id = b.way_id AS usual FROM batch b
                        JOIN bank_account a ON a.currency = :currency AND a.closed_on IS NULL
                        JOIN way_to_pay w ON w.bank_account_id = a.id AND w.method = :check
                        WHERE b.id = :batch ORDER BY usual DESC, a.position, w.position
                        """)
                .param("currency", payment.amount().currency().getCurrencyCode())
                .param("check", PaymentMethod.CHECK.name())
                .param("batch", payment.batch().value())
                .query(ReissueChoice.class)
                .list();
        return new ReissueChoices(addresses, ways);
    }

    /** Stops the check, makes its reissue and sends that for approval; answers with the batch. */
    @Transactional
    public BatchId reissue(Actor by, PaymentId id, Once wanted) {
        by.mayDo(Deed.REISSUE);
        String reason = wanted.reason().strip();
        if (reason.isEmpty()) {
            throw Refusal.invalidField(
                    "reason-missing", "reason", "Say why it is paid once more, such as “lost in the mail”.");
        }
        Payment payment = payments.lock(id);
        Check check = checks.carrying(List.of(id)).get(id);
        if (check == null) {
            throw Refusal.conflict(
                    "no-paper", "No check carries the payment to " + payment.payee() + ", so none is reissued.");
        }
        rows.mustNotWait(List.of(id));
        LocalDate ledgerDate = wanted.ledgerDate() == null ? wanted.checkDate() : wanted.ledgerDate();
        mustBeVoidable(payment, ledgerDate, by.today());
        if (payment.state() == PaymentState.OUTSTANDING) {
            stops.stop(by, List.of(id), reason);
        }
        To to = to(payment, wanted);
        periods.shareForNew(by, ledgerDate);
        BatchId batch = reissues.make(
                by,
                new Reissues.NewReissue(
                        "Reissue of check " + check.number(),
                        reason,
                        to.account(),
                        to.way(),
                        Criteria.checkDate(wanted.checkDate(), by.today()),
                        ledgerDate,
                        payment.claim(),
                        to.remitTo()));
        audit.record(
                by,
                "reissue check",
                "check " + check.number(),
                Map.of("batch", batch.value(), "date", wanted.checkDate().toString(), "reason", reason));
        sending.send(by, batch, batches.get(batch).version());
        return batch;
    }

    /** It has to be possible on the day on which the new one is posted. */
    private void mustBeVoidable(Payment payment, LocalDate ledgerDate, LocalDate today) {
        LocalDate then = ledgerDate.isAfter(today) ? ledgerDate : today;
        Looked looked = looks.look(Wanted.broughtBack(payment.id(), ledgerDate), List.of(payment), "reissued", then)
                .get(0);
        if (looked.refused() != null) {
            throw looked.refused();
        }
    }

    private record To(BankAccount account, WayId way, long remitTo) {}

    private To to(Payment payment, Once wanted) {
        record Old(long way, long remitTo, long vendor) {}
        Old old = jdbc.sql("SELECT b.way_id AS way, c.remit_to_id AS remit_to, c.vendor_id AS vendor FROM claim c"
                        + " JOIN batch b ON b.id = c.batch_id WHERE c.id = ?")
                .param(payment.claim().value())
                .query((r, n) -> new Old(r.getLong("way"), r.getLong("remit_to"), r.getLong("vendor")))
                .single();
        long remitTo = wanted.remitTo() == null ? old.remitTo() : wanted.remitTo();
        boolean itsOwn = jdbc.sql("SELECT COUNT(*) FROM remit_to r JOIN payment p ON p.id = ? WHERE r.id = ?"
                                + " AND r.in_force AND r.vendor_id = p.vendor_id")
                        .params(payment.id().value(), remitTo)
                        .query(Long.class)
                        .single()
                == 1;
        if (!itsOwn) {
            throw Refusal.invalidField(
                    "other-vendor",
                    "remitTo",
                    "This is no address of that vendor that may be paid to. Choose one of its own that two people agreed on.");
        }
        WayId way = new WayId(wanted.way() == null ? old.way() : wanted.way());
        BankAccount account =
                accounts.get(new BankAccountId(jdbc.sql("SELECT bank_account_id FROM way_to_pay WHERE id = ?")
                        .param(way.value())
                        .query(Long.class)
                        .optional()
                        .orElseThrow(() -> Refusal.invalidField(
                                "no-way", "way", "There is no such way to pay. Choose one shown."))));
        account.mustBeOpen();
        if (wanted.way() == null && account.way(way).recordedOnly()) {
            // a check that was written by hand is paid once more by one that is printed
            way = account.payingWay(null).id();
        }
        if (!account.currency().equals(payment.amount().currency())
                || account.payingWay(way).method() != PaymentMethod.CHECK) {
            throw Refusal.invalidField(
                    "other-way",
                    "way",
                    account.name() + " cannot pay this by check in "
                            + payment.amount().currency().getCurrencyCode() + ". Choose another way to pay.");
        }
        return new To(account, way, remitTo);
    }
}
