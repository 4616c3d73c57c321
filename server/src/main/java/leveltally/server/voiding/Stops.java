package leveltally.server.voiding;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.payments.StopOrder;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Reissues;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.frame.WorkIds;
import leveltally.server.payments.Payment;
import leveltally.server.payments.Payments;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Stops: asked of the bank, confirmed by it, lifted by two people, ended by what becomes of the check. */
@Service
public class Stops implements Agreed {
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final Payments payments;
    private final Checks checks;
    private final UndoingRows rows;
    private final Reissues reissues;
    private final AuditTrail audit;

    Stops(
            JdbcClient jdbc,
            WorkIds ids,
            Payments payments,
            Checks checks,
            UndoingRows rows,
            Reissues reissues,
            AuditTrail audit) {
        this.jdbc = jdbc;
        this.ids = ids;
        this.payments = payments;
        this.checks = checks;
        this.rows = rows;
        this.reissues = reissues;
        this.audit = audit;
    }

    /** How a stop ended. */
    enum Ended {
        LIFTED,
        UNDONE
    }

    /** Stops checks from now on, all or none; the bank is asked by whoever presses the button, and its answer comes later. */
    @Transactional
    public void stop(Actor by, List<PaymentId> wanted, String why) {
        by.mayDo(Deed.STOP_PAYMENT);
        if (why.isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "reason", "Say why it is stopped, such as “lost in the mail”.");
        }
        rows.mustNotWait(wanted);
        WorkIds.Supply supply = ids.supply();
        Map<PaymentId, Check> named = checks.carrying(wanted);
        for (Payment payment : payments.lock(wanted)) {
            Check check = named.get(payment.id());
            if (check == null) {
                throw Refusal.conflict(
                        "no-paper", "The payment to " + payment.payee() + " is no check, so its bank stops nothing.");
            }
            payments.move(by, payment.id(), PaymentState.STOPPED, check.name(), by.today(), why.strip());
            jdbc.sql(
                            "INSERT INTO stop_order (id, payment_id, asked_on, asked_at, asked_by, why) VALUES (?, ?, ?, ?, ?, ?)")
                    .params(
                            supply.next(),
                            payment.id().value(),
                            by.today(),
                            Timestamp.from(by.now()),
                            by.person().value(),
                            why.strip())
                    .update();
            audit.record(by, "stop check", subject(check), Map.of("reason", why.strip()));
        }
    }

    /**
     * What the bank answered; a later answer takes the place of an earlier one.
     *
     * @param until the last day on which the bank keeps to it; null where it never ends
     */
    @Transactional
    public void confirm(Actor by, PaymentId id, LocalDate on, String reference, @Nullable LocalDate until) {
        by.mayDo(Deed.STOP_PAYMENT);
        Check check = stopped(id, false);
        StopOrder stop = standing(id).confirmed(on, reference, until, by.today());
        jdbc.sql("UPDATE stop_order SET confirmed_on = ?, confirmed_by = ?, reference = ?, expires_on = ?"
                        + " WHERE standing_payment_id = ?")
                .params(stop.confirmedOn(), by.person().value(), stop.reference(), stop.expiresOn(), id.value())
                .update();
        audit.record(
                by,
                "record stop confirmed",
                subject(check),
                Map.of(
                        "reference",
                        stop.reference(),
                        "on",
                        on.toString(),
                        "until",
                        until == null ? "" : until.toString()));
    }

    /** Asks a second person to lift it; the check stays stopped until then. */
    @Transactional
    public long askToLift(Actor by, PaymentId id, String why) {
        by.mayDo(Deed.STOP_PAYMENT);
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why the bank may pay it after all.");
        }
        Check check = stopped(id, true);
        rows.mustNotWait(List.of(id));
        audit.record(by, "ask to lift stop", subject(check), Map.of("reason", why.strip()));
        return rows.ask(by, UndoingKind.LIFT_STOP, Wanted.broughtBack(id, by.today()), true, why.strip());
    }

    @Override
    public UndoingKind kind() {
        return UndoingKind.LIFT_STOP;
    }

    /** Back to outstanding; the bank is told nothing by us, because it was told nothing of the stop either. */
    @Override
    public Runnable prepare(Actor by, UndoingRows.Question question) {
        PaymentId id = new PaymentId(question.wanted().payments().get(0).payment());
        Check check = stopped(id, true);
        return () -> {
            payments.move(by, id, PaymentState.OUTSTANDING, check.name(), by.today(), question.reason());
            end(by, List.of(id), Ended.LIFTED);
            audit.record(by, "lift stop", subject(check), Map.of("reason", question.reason()));
        };
    }

    /** The stops of payments that are something else now; nothing where none stood. */
    void end(Actor by, List<PaymentId> payments, Ended how) {
        jdbc.sql("UPDATE stop_order SET ended_at = :at, ended_how = :how WHERE standing_payment_id IN (:payments)")
                .param("at", Timestamp.from(by.now()))
                .param("how", how.name())
                .param("payments", payments.stream().map(PaymentId::value).toList())
                .update();
    }

    /** @param free true where nothing may be about to replace it */
    private Check stopped(PaymentId id, boolean free) {
        Payment payment = payments.lock(id);
        Check check = checks.carrying(List.of(id)).get(id);
        if (check == null || payment.state() != PaymentState.STOPPED) {
            throw Refusal.conflict(
                    "not-stopped",
                    (check == null ? "The payment to " + payment.payee() : check.name()) + " is "
                            + payment.state().words() + ", not stopped. Look at it again.");
        }
        String batch = reissues.replacing(List.of(payment.claim())).get(payment.claim());
        if (free && batch != null) {
            throw Refusal.conflict(
                    "being-reissued",
                    check.name() + " is being paid once more in the batch “" + batch + "”. Withdraw that first.");
        }
        return check;
    }

    private StopOrder standing(PaymentId id) {
        return jdbc.sql("SELECT asked_on, confirmed_on, reference, expires_on FROM standing_stop WHERE payment_id = ?")
                .param(id.value())
                .query((r, n) -> new StopOrder(
                        r.getObject("asked_on", LocalDate.class),
                        r.getObject("confirmed_on", LocalDate.class),
                        r.getString("reference"),
                        r.getObject("expires_on", LocalDate.class)))
                .single();
    }

    private static String subject(Check check) {
        return "check " + check.number();
    }
}
