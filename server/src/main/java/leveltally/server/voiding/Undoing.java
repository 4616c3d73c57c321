package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.EntryId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.voiding.Effect;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Drafting;
import leveltally.server.invoices.Holds;
import leveltally.server.ledger.Periods;
import leveltally.server.payments.Payments;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Undoes posted payments, several in one deed, all or none: what is shown before is the plan that is carried out. Where an
 * invoice is cancelled with its payment, the deed is asked for by one person and done by a second.
 */
@Service
public class Undoing implements Agreed {
    private final Payments payments;
    private final Batches batches;
    private final Drafting drafting;
    private final UndoLook looks;
    private final UndoingRows rows;
    private final Periods periods;
    private final Holds holds;
    private final AuditTrail audit;
    private final UndoWriter writer;

    Undoing(
            Payments payments,
            Batches batches,
            Drafting drafting,
            UndoLook looks,
            UndoingRows rows,
            Periods periods,
            Holds holds,
            AuditTrail audit,
            UndoWriter writer) {
        this.payments = payments;
        this.batches = batches;
        this.drafting = drafting;
        this.looks = looks;
        this.rows = rows;
        this.periods = periods;
        this.holds = holds;
        this.audit = audit;
        this.writer = writer;
    }

    /** @param waits true where a second person has to agree before anything is written */
    public record Asked(long id, boolean waits) {}

    /** What undoing them would do; the same plans the deed carries out. */
    @Transactional(readOnly = true)
    List<Looked> look(Actor by, Wanted wanted, String reason) {
        by.mayDo(Deed.READ);
        wanted.mustBeOneDeed();
        return looks.look(wanted, payments.all(ids(wanted)), reason, by.today());
    }

    /**
     * Undoes them, or asks a second person where invoices are cancelled with them.
     *
     * @throws Refusal when one of them cannot be undone so; then none is
     */
    @Transactional
    public Asked undo(Actor by, Wanted wanted, String reason) {
        by.mayDo(Deed.UNDO_PAYMENT);
        wanted.mustBeOneDeed();
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why this is undone.");
        }
        lockDraft(wanted);
        List<Looked> looked = looks.look(wanted, payments.lock(ids(wanted)), reason, by.today());
        mustAllBePlanned(looked);
        mustNameReturn(wanted, looked);
        rows.mustNotWait(ids(wanted));
        looked.stream().map(Looked::on).distinct().sorted().forEach(day -> periods.shareForNew(by, day));
        boolean byTwo = looked.stream().anyMatch(one -> one.planned().needsSecond());
        long id = rows.ask(by, UndoingKind.UNDO, wanted, byTwo, reason.strip());
        if (byTwo) {
            audit.record(
                    by,
                    looked.stream()
                            .map(one -> new AuditTrail.Done(
                                    one.check() == null ? "ask to reverse payment" : "ask to void check",
                                    one.subject(),
                                    Map.of("reason", reason.strip())))
                            .toList());
        } else {
            carryOut(by, by.person(), id, wanted, looked, reason.strip());
        }
        return new Asked(id, byTwo);
    }

    @Override
    public UndoingKind kind() {
        return UndoingKind.UNDO;
    }

    @Override
    public Runnable prepare(Actor by, UndoingRows.Question question) {
        Wanted wanted = question.wanted();
        lockDraft(wanted);
        List<Looked> looked = looks.look(wanted, payments.lock(ids(wanted)), question.reason(), by.today());
        mustAllBePlanned(looked);
        return () -> carryOut(by, question.askedBy(), question.id(), wanted, looked, question.reason());
    }

    /**
     * Voids the payments that others replace, in the transaction that posts those: their invoices are open again on that day,
     * and settled by the new ones.
     *
     * @param by names what replaces each, such as {@code Check 10100}
     */
    @Transactional
    public void replaced(Actor who, Map<PaymentId, String> by, LocalDate on) {
        if (by.isEmpty()) {
            return;
        }
        Wanted wanted = new Wanted(
                by.keySet().stream()
                        .map(id -> new Wanted.One(id.value(), List.of()))
                        .toList(),
                on,
                Wanted.Fate.OPEN,
                null,
                null);
        LocalDate then = on.isAfter(who.today()) ? on : who.today();
        List<Looked> looked = looks.lookReplaced(wanted, payments.lock(by.keySet()), "reissued", then);
        mustAllBePlanned(looked);
        writer.write(
                who,
                looked.stream()
                        .map(one -> new UndoWriter.Said(
                                one,
                                "reissued as "
                                        + UndoPlan.lowered(by.get(one.payment().id()))))
                        .toList());
        rows.flush();
    }

    private static void mustAllBePlanned(List<Looked> looked) {
        looked.stream()
                .map(Looked::refused)
                .filter(Objects::nonNull)
                .findFirst()
                .ifPresent(refused -> {
                    throw refused;
                });
    }

    /** What came back to the bank is told by the bank's own reference. */
    private static void mustNameReturn(Wanted wanted, List<Looked> looked) {
        if (looked.stream().filter(Looked::comesBack).anyMatch(one -> isBlank(reference(wanted, one)))) {
            throw Refusal.invalidField(
                    "return-reference-missing",
                    "bankReference",
                    "Type the reference under which the bank sent the money back.");
        }
    }

    private static boolean isBlank(@Nullable String text) {
        return text == null || text.isBlank();
    }

    /** The draft comes first: batches are locked before payments. */
    private void lockDraft(Wanted wanted) {
        Long into = wanted.into();
        if (into != null) {
            batches.lockAnyVersion(new BatchId(into));
        }
    }

    /** @param asker whose wish it is */
    private void carryOut(Actor by, PersonId asker, long id, Wanted wanted, List<Looked> looked, String reason) {
        looked.stream().map(Looked::on).distinct().sorted().forEach(periods::shareOpen);
        Map<PaymentId, EntryId> entries = writer.write(
                by,
                looked.stream()
                        .map(one -> new UndoWriter.Said(one, said(wanted, one, reason)))
                        .toList());
        for (Looked one : looked) {
            PaymentId payment = one.payment().id();
            rows.chose(id, payment, entries.get(payment), one.planned().chosen());
            one.planned().held().forEach((item, why) -> holds.holdAsAsked(by, asker, item, why));
        }
        intoDraft(by, wanted, looked);
    }

    private static String said(Wanted wanted, Looked one, String reason) {
        Wanted.SentBack own = one.asked().sentBack();
        String why = own == null ? reason : own.why();
        String given = one.planned().handedOver() ? "handed over as unclaimed: " + why : why;
        return one.comesBack() ? given + "; the bank's reference " + reference(wanted, one) : given;
    }

    private static @Nullable String reference(Wanted wanted, Looked one) {
        Wanted.SentBack own = one.asked().sentBack();
        return own == null ? wanted.bankReference() : own.reference();
    }

    private void intoDraft(Actor by, Wanted wanted, List<Looked> looked) {
        if (wanted.into() == null) {
            return;
        }
        List<InvoiceId> open = looked.stream()
                .flatMap(one -> Objects.requireNonNull(one.effect()).items().stream())
                .filter(item -> item.becomes() == Effect.Becomes.OPEN)
                .map(Effect.OnItem::id)
                .distinct()
                .toList();
        if (!open.isEmpty()) {
            rows.flush();
            Batch draft = batches.get(new BatchId(wanted.into()));
            drafting.add(by, draft.id(), draft.version(), open);
        }
    }

    private static List<PaymentId> ids(Wanted wanted) {
        return wanted.payments().stream()
                .map(one -> new PaymentId(one.payment()))
                .toList();
    }
}
