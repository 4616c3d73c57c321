package leveltally.server.outside;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Purpose;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.outside.OutsideNumber;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.approval.Sending;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.TypedBatches;
import leveltally.server.checks.Series;
import leveltally.server.checks.WrittenChecks;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.ledger.WayToPay;
import leveltally.server.payments.Payments;
import leveltally.server.printing.Paperless;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Records payments that were made elsewhere: what was paid on one day stands in one batch, is agreed to after the fact, and
 * posted.
 */
@Service
public class OutsidePayments {
    private final OutsideLook looks;
    private final OutsideNumbers numbers;
    private final TypedBatches recording;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Sending sending;
    private final Payments payments;
    private final Paperless paperless;
    private final WrittenChecks written;
    private final Series series;
    private final BankAccounts accounts;
    private final Periods periods;
    private final AuditTrail audit;

    OutsidePayments(
            OutsideLook looks,
            OutsideNumbers numbers,
            TypedBatches recording,
            Batches batches,
            ClaimRows claimRows,
            Sending sending,
            Payments payments,
            Paperless paperless,
            WrittenChecks written,
            Series series,
            BankAccounts accounts,
            Periods periods,
            AuditTrail audit) {
        this.looks = looks;
        this.numbers = numbers;
        this.recording = recording;
        this.batches = batches;
        this.claimRows = claimRows;
        this.sending = sending;
        this.payments = payments;
        this.paperless = paperless;
        this.written = written;
        this.series = series;
        this.accounts = accounts;
        this.periods = periods;
        this.audit = audit;
    }

    /** What somebody records: rows of one way to pay. */
    public record Recorded(BankAccountId account, WayId way, String name, String note, List<OutsideRow> rows) {}

    /** How each row is understood. */
    @Transactional(readOnly = true)
    List<OutsideSeen> look(Actor by, BankAccountId account, WayId way, long batch, List<OutsideRow> rows) {
        by.mayDo(Deed.READ);
        return looks.look(on(by, account, way, batch), rows);
    }

    private OutsideReads.On on(Actor by, BankAccountId id, WayId wanted, long batch) {
        BankAccount account = accounts.get(id);
        WayToPay way = account.way(wanted);
        if (!way.recordedOnly() && way.method() != PaymentMethod.CHECK) {
            throw Refusal.invalid(
                    "made-here",
                    "What is paid by “" + way.name() + "” is made here, so it is not recorded. Choose another way.");
        }
        return new OutsideReads.On(account, way, batch, by.today(), by.roles());
    }

    /**
     * Records them, a batch for each day and ledger date, or none.
     *
     * @param send whether they are sent for approval at once
     * @throws Refusal naming the first row that cannot be so
     */
    @Transactional
    public List<BatchId> record(Actor by, Recorded wanted, boolean send) {
        by.mayDo(Deed.RECORD_OUTSIDE);
        OutsideReads.On on = on(by, wanted.account(), wanted.way(), 0);
        on.account().mustBeOpen();
        List<OutsideSeen> seen = understood(on, wanted.rows());
        record Day(LocalDate paidOn, LocalDate ledgerDate) {}
        Map<Day, List<OutsideSeen>> days =
                new TreeMap<>(Comparator.comparing(Day::paidOn).thenComparing(Day::ledgerDate));
        seen.forEach(
                one -> days.computeIfAbsent(new Day(one.row().paidOn(), one.ledgerDate()), none -> new ArrayList<>())
                        .add(one));
        days.keySet().stream().map(Day::ledgerDate).distinct().sorted().forEach(day -> periods.shareForNew(by, day));
        List<BatchId> made = new ArrayList<>();
        days.forEach((day, rows) -> {
            TypedBatches.Made batch = recording.make(
                    by,
                    batch(on, name(wanted.name(), on.way(), day.paidOn(), days.size()), wanted.note(), rows),
                    paid(rows));
            typed(batch, rows);
            audit.record(
                    by,
                    "record payments made elsewhere",
                    "batch " + batch.batch().value(),
                    Map.of("way", on.way().name(), "on", day.paidOn().toString(), "payments", rows.size()));
            made.add(batch.batch());
        });
        if (send) {
            made.forEach(id -> sending.send(by, id, batches.get(id).version()));
        }
        return made;
    }

    /** What somebody called it; with the day where they fall into several batches. */
    private static String name(String typed, WayToPay way, LocalDate paidOn, int days) {
        String day = Dates.inWords(paidOn);
        String called = typed.strip();
        return called.isEmpty() ? way.name() + " of " + day : days == 1 ? called : called + ", " + day;
    }

    private static TypedBatches.NewTyped batch(OutsideReads.On on, String name, String note, List<OutsideSeen> rows) {
        if (name.length() > 80) {
            throw Refusal.invalidField("name-long", "name", "A batch's name has at most 80 characters.");
        }
        OutsideSeen first = rows.get(0);
        return new TypedBatches.NewTyped(
                Purpose.OUTSIDE,
                name,
                note.strip(),
                on.account(),
                on.way(),
                first.row().paidOn(),
                first.ledgerDate());
    }

    private static List<TypedBatches.Paid> paid(List<OutsideSeen> rows) {
        return rows.stream().map(row -> Objects.requireNonNull(row.paid())).toList();
    }

    private void typed(TypedBatches.Made made, List<OutsideSeen> rows) {
        numbers.type(
                made.claims(),
                rows.stream()
                        .map(row -> new OutsideNumbers.Typed(
                                "", row.number(), row.row().said().strip()))
                        .toList());
    }

    /** @throws Refusal when there is none, or naming the first that cannot be so */
    private List<OutsideSeen> understood(OutsideReads.On on, List<OutsideRow> rows) {
        if (rows.isEmpty()) {
            throw Refusal.invalid("nothing-recorded", "There is no payment to record. Type the first one.");
        }
        List<OutsideSeen> seen = looks.look(on, rows);
        for (int i = 0; i < seen.size(); i++) {
            Refusal problem = seen.get(i).problem();
            if (problem != null) {
                throw Refusal.invalid(
                        problem.code(), "Row " + (i + 1) + ": " + problem.sentence() + " Nothing was recorded.");
            }
        }
        return seen;
    }

    /** Records the payments of a draft anew; all of them stay on one day. */
    @Transactional
    void recordAnew(Actor by, BatchId id, long version, Recorded wanted) {
        by.mayDo(Deed.RECORD_OUTSIDE);
        OutsideReads.On on = on(by, wanted.account(), wanted.way(), id.value());
        Batch batch = batches.lockFor(id, version);
        if (!batch.account().equals(wanted.account()) || !batch.way().equals(wanted.way())) {
            throw Refusal.invalid(
                    "other-way", "A batch keeps its account and its way to pay. Record these in a new one.");
        }
        List<OutsideSeen> seen = understood(on, wanted.rows());
        if (seen.stream().map(one -> one.row().paidOn()).distinct().count() > 1) {
            throw Refusal.invalid(
                    "several-days",
                    "This batch is of one day. Give its rows one day, and record those of other days in a new batch.");
        }
        periods.shareForNew(by, seen.get(0).ledgerDate());
        String name = name(wanted.name(), on.way(), seen.get(0).row().paidOn(), 1);
        TypedBatches.Made made = recording.replace(by, id, version, batch(on, name, wanted.note(), seen), paid(seen));
        typed(made, seen);
        audit.record(by, "record payments made elsewhere", "batch " + id.value(), Map.of("payments", seen.size()));
    }

    /** What is recorded in a batch, as it was typed. */
    @Transactional(readOnly = true)
    List<OutsideRow> rows(BatchId id) {
        Batch batch = batches.get(id);
        Map<ClaimId, OutsideNumbers.Typed> typed = numbers.typed(id);
        return claimRows.of(id).stream()
                .filter(claim -> typed.containsKey(claim.id()))
                .map(claim -> {
                    OutsideNumbers.Typed one = typed.get(claim.id());
                    return new OutsideRow(
                            one.number(),
                            batch.checkDate(),
                            one.vendor(),
                            one.said(),
                            claim.amount().toString());
                })
                .toList();
    }

    /** A payment that is about to be posted, with what people call it. */
    public record Prepared(PaymentId payment, ClaimId claim, String name, String payee) {}

    /**
     * Turns the claims of a locked, approved batch into payments and records their numbers; the deed that posts them does
     * the rest in the same transaction.
     *
     * @throws Refusal when a number was used meanwhile
     */
    @Transactional
    public List<Prepared> prepare(Actor by, Batch batch) {
        if (batch.state() != BatchState.APPROVED) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ", so there is nothing to post. It is agreed to first.");
        }
        List<Claim> claims = claimRows.of(batch.id());
        Map<ClaimId, OutsideNumbers.Typed> typed = numbers.typed(batch.id());
        List<PaymentId> made = payments.prepare(by, batch, claims);
        paperless.keep(
                batch,
                claims,
                made,
                claims.stream().map(claim -> typed.get(claim.id()).number()).toList());
        Map<PaymentId, String> numbered = new HashMap<>();
        List<Prepared> prepared = new ArrayList<>();
        for (int i = 0; i < claims.size(); i++) {
            String number = typed.get(claims.get(i).id()).number();
            numbered.put(made.get(i), number);
            prepared.add(new Prepared(
                    made.get(i),
                    claims.get(i).id(),
                    batch.method().called(number),
                    claims.get(i).remitTo().payee()));
        }
        if (batch.method() == PaymentMethod.CHECK) {
            var range = series.of(batch.way()).range();
            written.writeDown(
                    by,
                    batch.way(),
                    made.stream()
                            .map(id -> new WrittenChecks.Written(id, OutsideNumber.ofCheck(numbered.get(id), range)))
                            .toList());
        } else {
            numbers.post(batch.way(), numbered);
        }
        return prepared;
    }
}
