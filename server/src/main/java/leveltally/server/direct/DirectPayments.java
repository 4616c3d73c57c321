package leveltally.server.direct;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Purpose;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Criteria;
import leveltally.server.approval.Sending;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.TypedBatches;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Payments without an invoice: what was typed stands in one batch of one day and one way, is approved before it leaves, and goes
 * on like any other.
 */
@Service
public class DirectPayments {
    private final DirectLook looks;
    private final DirectEntries entries;
    private final Schedules schedules;
    private final TypedBatches typed;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Sending sending;
    private final BankAccounts accounts;
    private final Periods periods;
    private final AuditTrail audit;

    DirectPayments(
            DirectLook looks,
            DirectEntries entries,
            Schedules schedules,
            TypedBatches typed,
            Batches batches,
            ClaimRows claimRows,
            Sending sending,
            BankAccounts accounts,
            Periods periods,
            AuditTrail audit) {
        this.looks = looks;
        this.entries = entries;
        this.schedules = schedules;
        this.typed = typed;
        this.batches = batches;
        this.claimRows = claimRows;
        this.sending = sending;
        this.accounts = accounts;
        this.periods = periods;
        this.audit = audit;
    }

    /** What somebody pays: rows of one way, on one day; {@code name} empty: as the day is called. */
    public record Wanted(
            BankAccountId account, WayId way, LocalDate checkDate, String name, String note, List<DirectRow> rows) {}

    /**
     * How it is made.
     *
     * @param send whether it is sent for approval at once
     * @param typedAs what whoever types it calls this typing, by which the same deed is known when its answer was lost; empty:
     *     nothing is known of it
     */
    public record How(boolean send, String typedAs) {}

    /** How each row is understood. */
    @Transactional(readOnly = true)
    List<DirectSeen> look(Actor by, Wanted wanted, long batch) {
        by.mayDo(Deed.READ);
        return looks.look(on(by, wanted, batch), wanted.rows());
    }

    private DirectLook.On on(Actor by, Wanted wanted, long batch) {
        BankAccount account = accounts.get(wanted.account());
        return new DirectLook.On(
                account, account.payingWay(wanted.way()), Criteria.checkDate(wanted.checkDate(), by.today()), batch);
    }

    /**
     * Makes the batch, or none.
     *
     * @throws Refusal naming the first row that cannot be so; or that this very typing was made already
     */
    @Transactional
    public BatchId make(Actor by, Wanted wanted, How how) {
        by.mayDo(Deed.EDIT_BATCH);
        mustBeMadeOnce(by, how);
        DirectLook.On on = on(by, wanted, 0);
        on.account().mustBeOpen();
        List<DirectSeen> seen = understood(on, wanted.rows());
        periods.shareForNew(by, on.checkDate());
        TypedBatches.Made made = typed.make(by, batch(on, wanted), how.typedAs(), paid(seen));
        keep(made, seen);
        audit.record(
                by,
                "pay without an invoice",
                "batch " + made.batch().value(),
                Map.of("way", on.way().name(), "on", on.checkDate().toString(), "payments", seen.size()));
        if (how.send()) {
            sending.send(by, made.batch(), batches.get(made.batch()).version());
        }
        return made.batch();
    }

    private void mustBeMadeOnce(Actor by, How how) {
        typed.madeOf(by, how.typedAs()).ifPresent(name -> {
            throw Refusal.conflict(
                    "made-already",
                    "This was made already, as the batch “" + name
                            + "”; only its answer was lost. Look at it in Batches, and"
                            + " press Clear here to type others.");
        });
    }

    /** Types the payments of a draft anew. */
    @Transactional
    void makeAnew(Actor by, BatchId id, long version, Wanted wanted) {
        by.mayDo(Deed.EDIT_BATCH);
        Batch batch = batches.lockFor(id, version);
        if (!batch.account().equals(wanted.account()) || !batch.way().equals(wanted.way())) {
            throw Refusal.invalid(
                    "other-way", "A batch keeps its account and its way to pay. Type these in a new one.");
        }
        DirectLook.On on = on(by, wanted, id.value());
        // its own days are free again before they are taken anew
        List<DirectSeen> seen = understood(on, wanted.rows());
        periods.shareForNew(by, on.checkDate());
        keep(typed.replace(by, id, version, batch(on, wanted), paid(seen)), seen);
        audit.record(by, "pay without an invoice", "batch " + id.value(), Map.of("payments", seen.size()));
    }

    private static TypedBatches.NewTyped batch(DirectLook.On on, Wanted wanted) {
        String name = wanted.name().isBlank()
                ? "Without an invoice, " + Dates.inWords(on.checkDate())
                : wanted.name().strip();
        return new TypedBatches.NewTyped(
                Purpose.DIRECT, name, wanted.note().strip(), on.account(), on.way(), on.checkDate(), on.checkDate());
    }

    private static List<TypedBatches.Paid> paid(List<DirectSeen> rows) {
        return rows.stream().map(row -> Objects.requireNonNull(row.paid())).toList();
    }

    /** Keeps what was typed; whoever keeps a schedule has a hand in what it pays (law L7). */
    private void keep(TypedBatches.Made made, List<DirectSeen> seen) {
        List<DirectRow> rows = seen.stream().map(DirectSeen::row).toList();
        schedules.mustFall(seen, made.batch());
        entries.write(made.claims(), rows);
        batches.addHands(made.batch(), schedules.keepers(rows));
    }

    private List<DirectSeen> understood(DirectLook.On on, List<DirectRow> rows) {
        if (rows.isEmpty()) {
            throw Refusal.invalid("nothing-typed", "There is no payment to make. Type the first one.");
        }
        List<DirectSeen> seen = looks.look(on, rows);
        for (int i = 0; i < seen.size(); i++) {
            Refusal problem = seen.get(i).problem();
            if (problem != null) {
                throw Refusal.invalid(
                        problem.code(), "Row " + (i + 1) + ": " + problem.sentence() + " Nothing was made.");
            }
        }
        return seen;
    }

    /** What a batch pays, as it was typed. */
    @Transactional(readOnly = true)
    List<DirectRow> rows(BatchId id) {
        Map<ClaimId, DirectEntries.Entry> kept = entries.of(id);
        return claimRows.of(id).stream()
                .filter(claim -> kept.containsKey(claim.id()))
                .map(claim -> {
                    DirectEntries.Entry entry = kept.get(claim.id());
                    return new DirectRow(
                            entry.vendor(),
                            entry.said(),
                            claim.lines().get(0).reference(),
                            claim.amount().toString(),
                            entry.schedule(),
                            entry.dueOn());
                })
                .toList();
    }
}
