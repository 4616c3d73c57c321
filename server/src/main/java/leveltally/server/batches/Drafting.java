package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Draft;
import leveltally.core.batches.DraftClaim;
import leveltally.core.batches.DraftLine;
import leveltally.core.batches.Gathering;
import leveltally.core.batches.Purpose;
import leveltally.core.batches.Reckoning;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.CreditCandidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Eligibility;
import leveltally.core.selection.Filters;
import leveltally.core.selection.Marks;
import leveltally.core.selection.Paying;
import leveltally.core.selection.Selection;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.invoices.Invoices;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.WayToPay;
import leveltally.server.selection.CandidateRows;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.selection.SavedCriteria;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Makes drafts and edits them. Criteria run once; an edit moves only what it names, is saved at once, and can be undone
 * while the batch is a draft. Every edit locks the batch's row and compares its version ({@link Batches#lockFor}).
 */
@Service
public class Drafting {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final DraftRows rows;
    private final EditLog log;
    private final Due due;
    private final CandidateRows candidates;
    private final SavedCriteria saved;
    private final Invoices invoices;
    private final Vendors vendors;
    private final BankAccounts accounts;
    private final Ledger ledger;
    private final AuditTrail audit;

    Drafting(
            EntityManager entities,
            JdbcClient jdbc,
            JsonMapper json,
            Batches batches,
            ClaimRows claimRows,
            DraftRows rows,
            EditLog log,
            Due due,
            CandidateRows candidates,
            SavedCriteria saved,
            Invoices invoices,
            Vendors vendors,
            BankAccounts accounts,
            Ledger ledger,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.json = json;
        this.batches = batches;
        this.claimRows = claimRows;
        this.rows = rows;
        this.log = log;
        this.due = due;
        this.candidates = candidates;
        this.saved = saved;
        this.invoices = invoices;
        this.vendors = vendors;
        this.accounts = accounts;
        this.ledger = ledger;
        this.audit = audit;
    }

    /** Makes a draft of what the criteria take now, and reserves its invoices and credits. */
    @Transactional
    public BatchId make(Actor by, NewBatch wanted) {
        by.mayDo(Deed.EDIT_BATCH);
        if (wanted.name().isBlank()) {
            throw Refusal.invalidField("name-missing", "name", "Give the batch a name that others will know it by.");
        }
        DueQuestion asked = wanted.question();
        BankAccount account = accounts.get(asked.bankAccount());
        ledger.shareOpenPeriod(asked.ledgerDay(account, by.today()));
        WayToPay way = account.way(asked.wayId());
        if (way.method() != PaymentMethod.CHECK) {
            throw Refusal.invalid(
                    "only-checks",
                    account.name() + " pays by " + way.method().words()
                            + ", which cannot be made here yet. Pay these at the bank, or choose an account that pays by check.");
        }
        Selection selection = due.select(asked, by.today());
        int count = selection.taken().size();
        if (count == 0) {
            throw Refusal.invalid(
                    "nothing-taken", "No invoice is taken, so there is no batch to make. Take some first.");
        }
        if (count != wanted.expectedCount()) {
            throw Refusal.conflict(
                    "list-changed",
                    "The list changed meanwhile: " + count + " invoices would be taken now, not "
                            + wanted.expectedCount() + ". Look at it again, then make the batch.");
        }
        String toPay = selection.toPay().toString();
        if (!toPay.equals(wanted.expectedToPay())) {
            throw Refusal.conflict(
                    "sum-changed",
                    "These invoices come to " + toPay + " now, not " + wanted.expectedToPay()
                            + ", because something about them changed meanwhile. Look at the list again, then make the batch.");
        }
        BatchEntity batch = newBatch(by, wanted, asked.onDates(selection.criteria()), way, selection.criteria());
        // before the batch, whose insert shares the account's row
        accounts.planRuns(account.id(), batch.checkDate, batch.nextRun);
        entities.persist(batch);
        entities.flush();
        batches.addHand(batch, by);
        rows.put(batch, selection.claims());
        Long criteria = wanted.criteria();
        if (criteria != null) {
            saved.ran(by, criteria, batch.id, batch.name + ": " + count + " invoices, " + selection.toPay());
        }
        audit.record(
                by,
                "make batch",
                "batch " + batch.id,
                Map.of(
                        "name",
                        batch.name,
                        "invoices",
                        count,
                        "toPay",
                        selection.toPay().plain()));
        return new BatchId(batch.id);
    }

    private BatchEntity newBatch(Actor by, NewBatch wanted, DueQuestion question, WayToPay way, Criteria criteria) {
        BatchEntity batch = new BatchEntity();
        batch.name = wanted.name().strip();
        batch.note = wanted.note().strip();
        batch.bankAccountId = question.account();
        batch.wayId = way.id().value();
        batch.purpose = Purpose.RUN;
        batch.method = way.method();
        batch.checkDate = criteria.checkDate();
        batch.ledgerDate = criteria.ledgerDate();
        batch.nextRun = criteria.nextRun();
        batch.question = json.writeValueAsString(question);
        batch.claimOrder = criteria.paying().order();
        batch.state = BatchState.DRAFT;
        batch.preparedBy = by.person().value();
        batch.preparedAt = by.now();
        Batches.touch(batch, by, "made it");
        return batch;
    }

    /** Adds open invoices, due or not; the first that cannot be taken refuses them all with its reason. */
    @Transactional
    public void add(Actor by, BatchId id, long version, List<InvoiceId> wanted) {
        BatchEntity batch = edit(by, id, version);
        List<Candidate> found = candidates.named(wanted, 0);
        if (found.size() < new HashSet<>(wanted).size()) {
            throw Refusal.invalid(
                    "not-open",
                    "One of these invoices is not open any more, so it cannot be added. Search for it again.");
        }
        refuseWhatCannotBeTaken(batch, found, "added");
        List<Draft.Addition> additions = found.stream()
                .map(candidate -> new Draft.Addition(
                        candidate.payee().vendor(),
                        candidate.payee().remitTo(),
                        DraftLine.invoice(candidate.invoice().id(), true, candidate.ownCheck())))
                .toList();
        List<String> references =
                found.stream().map(c -> c.invoice().reference()).toList();
        Paying.Grouping grouping = grouping(batch);
        change(by, batch, draft -> draft.add(additions, grouping), "added " + few(references));
    }

    /** Takes invoices out; gathering again leaves them out. A claim left empty disappears. */
    @Transactional
    public void takeOut(Actor by, BatchId id, long version, Set<InvoiceId> invoices) {
        BatchEntity batch = edit(by, id, version);
        if (batch.state != BatchState.DRAFT) {
            Set<ClaimId> whole = wholeClaims(rows.draft(batch.id), invoices);
            if (!whole.isEmpty()) {
                takeOutPayments(by, id, whole, "took out " + references(invoices));
                return;
            }
        }
        change(by, batch, draft -> draft.takeOut(invoices), "took out " + references(invoices));
    }

    /** The claims these invoices make up exactly; none when one of them stays in part. */
    private static Set<ClaimId> wholeClaims(Draft draft, Set<InvoiceId> invoices) {
        Set<ClaimId> whole = new HashSet<>();
        int covered = 0;
        for (DraftClaim claim : draft.claims()) {
            Set<InvoiceId> own = claim.lines().stream()
                    .filter(line -> line.kind() != leveltally.core.batches.ClaimLine.Kind.CREDIT)
                    .map(DraftLine::id)
                    .collect(Collectors.toSet());
            if (invoices.containsAll(own)) {
                whole.add(claim.id());
                covered += own.size();
            }
        }
        return covered == invoices.size() ? whole : Set.of();
    }

    /**
     * Takes whole payments out of a locked batch that was sent for approval. The other approvals and the route stand, and it
     * is no change under law L7; a batch left without payments closes as withdrawn.
     */
    @Transactional
    public void takeOutPayments(Actor by, BatchId id, Set<ClaimId> claims, String what) {
        BatchEntity batch = batches.row(id);
        Draft before = rows.draft(batch.id);
        Draft after = new Draft(before.claims().stream()
                .filter(claim -> !claims.contains(claim.id()))
                .toList());
        Changed changed = write(batch, before, after, true);
        log.record(by, batch.id, what, changed.before(), changed.after(), claimRows.amountMinor(batch.id));
        if (after.claims().isEmpty()) {
            batch.state = batch.state.to(BatchState.WITHDRAWN);
        }
        Batches.touch(batch, by, what);
        audit.record(by, "take out payments", "batch " + batch.id, Map.of("what", what, "payments", claims.size()));
    }

    /** Takes everything out. */
    @Transactional
    public void clear(Actor by, BatchId id, long version) {
        BatchEntity batch = edit(by, id, version);
        change(by, batch, draft -> new Draft(List.of()), "took everything out");
    }

    /** Pays part of an invoice, or all of it when {@code cash} is null. */
    @Transactional
    public void pay(Actor by, BatchId id, long version, InvoiceId invoice, @Nullable String cash) {
        BatchEntity batch = edit(by, id, version);
        BankAccount account = accounts.get(new leveltally.core.ledger.BankAccountId(batch.bankAccountId));
        Money typed = cash == null ? null : Money.typed(cash, account.currency(), "cash");
        Money kept = typed == null ? null : kept(batch, invoice, typed);
        String what = kept == null ? "pays all of " : "pays " + kept + " on ";
        change(by, batch, draft -> draft.pay(invoice, kept), what + references(Set.of(invoice)));
    }

    private @Nullable Money kept(BatchEntity batch, InvoiceId invoice, Money typed) {
        DraftClaim claim = rows.draft(batch.id).claimOf(invoice);
        List<InvoiceId> named = new ArrayList<>(claim.invoices());
        named.addAll(claim.credits());
        return Reckoning.typed(
                claim,
                invoice,
                typed,
                invoices.stillOpen(named),
                invoices.openCredits(named),
                batch.checkDate,
                accounts.company().graceDays());
    }

    /** Gives an invoice its own check. */
    @Transactional
    public void payAlone(Actor by, BatchId id, long version, InvoiceId invoice) {
        BatchEntity batch = edit(by, id, version);
        change(by, batch, draft -> draft.payAlone(invoice), "own check for " + references(Set.of(invoice)));
    }

    @Transactional
    public void split(Actor by, BatchId id, long version, Set<InvoiceId> invoices) {
        BatchEntity batch = edit(by, id, version);
        change(by, batch, draft -> draft.split(invoices), "a payment of its own for " + references(invoices));
    }

    @Transactional
    public void join(Actor by, BatchId id, long version, Set<InvoiceId> invoices) {
        BatchEntity batch = edit(by, id, version);
        change(by, batch, draft -> draft.join(invoices), "joined the payments of " + references(invoices));
    }

    /** Sends a claim to another address of its vendor. */
    @Transactional
    public void sendTo(Actor by, BatchId id, long version, ClaimId claim, long remitTo) {
        BatchEntity batch = edit(by, id, version);
        Place place = vendors.places(List.of(remitTo)).get(remitTo);
        DraftClaim of = rows.draft(batch.id).claim(claim);
        if (place == null || of.vendor().value() != place.vendor()) {
            throw Refusal.invalidField(
                    "other-vendor", "remitTo", "This is no address of that vendor. Choose one of its own.");
        }
        Set<InvoiceId> usable = usableCredits(batch, of, remitTo).keySet();
        change(
                by,
                batch,
                draft -> draft.sendTo(claim, remitTo, usable),
                "sends the payment to " + place.remitTo().payee() + ", "
                        + String.join(", ", place.remitTo().lines()));
    }

    @Transactional
    public void note(Actor by, BatchId id, long version, ClaimId claim, String note) {
        BatchEntity batch = edit(by, id, version);
        change(by, batch, draft -> draft.note(claim, note), "stub note “" + note.strip() + "”");
    }

    /** Lists invoices on the stub by themselves, or sums them up. */
    @Transactional
    public void show(Actor by, BatchId id, long version, Set<InvoiceId> invoices, boolean onStub) {
        BatchEntity batch = edit(by, id, version);
        String what = onStub ? "lists on the stub " : "sums up on the stub ";
        change(by, batch, draft -> draft.show(invoices, onStub), what + references(invoices));
    }

    /** Uses exactly these credits in a claim; they must be open, free and of its vendor and address. */
    @Transactional
    public void useCredits(Actor by, BatchId id, long version, ClaimId claim, List<InvoiceId> credits) {
        BatchEntity batch = edit(by, id, version);
        DraftClaim of = rows.draft(batch.id).claim(claim);
        Map<InvoiceId, CreditCandidate> usable = usableCredits(batch, of, of.remitTo());
        for (InvoiceId credit : credits) {
            if (!usable.containsKey(credit)) {
                throw Refusal.invalid(
                        "credit-not-usable",
                        "Credit " + credit.value() + " cannot be used here: it is settled, held, in another batch, "
                                + "not usable yet, or of another address or currency. Look at the vendor's page.");
            }
        }
        String what = credits.isEmpty() ? "uses no credits" : "uses credits " + references(Set.copyOf(credits));
        change(by, batch, draft -> draft.useCredits(claim, credits), what);
    }

    /** Uses no credits any more, in the whole batch. */
    @Transactional
    public void releaseCredits(Actor by, BatchId id, long version) {
        BatchEntity batch = edit(by, id, version);
        change(by, batch, Draft::releaseCredits, "released all credits");
    }

    /** The credits a claim could use, with those it uses. */
    @Transactional(readOnly = true)
    public List<leveltally.core.invoices.OpenCredit> creditsFor(BatchId id, ClaimId claim) {
        BatchEntity batch = batches.row(id);
        return rows.draft(batch.id).claims().stream()
                .filter(c -> claim.equals(c.id()))
                .findFirst()
                .map(c -> usableCredits(batch, c, c.remitTo()).values().stream()
                        .map(CreditCandidate::credit)
                        .toList())
                .orElse(List.of());
    }

    private Map<InvoiceId, CreditCandidate> usableCredits(BatchEntity batch, DraftClaim claim, long remitTo) {
        Criteria criteria = criteria(batch);
        Set<InvoiceId> elsewhere = new HashSet<>();
        rows.draft(batch.id).claims().stream()
                .filter(c -> !c.id().equals(claim.id()))
                .forEach(c -> elsewhere.addAll(c.credits()));
        return candidates.credits(List.of(claim.vendor()), batch.id).stream()
                .filter(c -> c.remitTo() == remitTo
                        && !elsewhere.contains(c.credit().id())
                        && Eligibility.whyNot(c, criteria).isEmpty())
                .collect(Collectors.toMap(c -> c.credit().id(), c -> c, (a, b) -> a, java.util.LinkedHashMap::new));
    }

    /** What running the batch's criteria again would change. */
    @Transactional(readOnly = true)
    public Gathering gathering(Actor by, BatchId id) {
        by.mayDo(Deed.READ);
        BatchEntity batch = batches.row(id);
        Draft draft = rows.draft(batch.id);
        return Gathering.of(draft, again(batch, draft, by.today()));
    }

    /**
     * Applies that difference, exactly as it was shown; what was decided by hand stays.
     *
     * @param shown {@link Gathering#shown} of what whoever applies it looked at
     */
    @Transactional
    public void gatherAgain(Actor by, BatchId id, long version, String shown) {
        BatchEntity batch = edit(by, id, version);
        Draft before = rows.draft(batch.id);
        Selection now = again(batch, before, by.today());
        Gathering difference = Gathering.of(before, now);
        if (difference.isEmpty()) {
            throw Refusal.conflict(
                    "nothing-new", "The criteria would take exactly what the batch has. Nothing changed.");
        }
        if (!difference.shown().equals(shown)) {
            throw Refusal.conflict(
                    "gathering-changed",
                    "What the criteria take changed while you looked: now "
                            + difference.added().size()
                            + " would come in and " + difference.removed().size()
                            + " would go out. Nothing was changed; look at the difference again, then apply it.");
        }
        String what = "gathered again: " + difference.added().size() + " in, "
                + difference.removed().size() + " out";
        step(by, batch, before, difference.applyTo(before, now), what, false);
    }

    private Selection again(BatchEntity batch, Draft draft, LocalDate today) {
        if (batch.question == null) {
            throw Refusal.conflict(
                    "no-criteria", "This batch was not made from criteria. Add what is missing by hand.");
        }
        Set<InvoiceId> in = new HashSet<>();
        draft.claims()
                .forEach(claim -> claim.lines().stream()
                        .filter(line -> line.byHand() && line.kind() == leveltally.core.batches.ClaimLine.Kind.INVOICE)
                        .forEach(line -> in.add(line.id())));
        Set<InvoiceId> out = new HashSet<>(jdbc.sql("SELECT invoice_id FROM batch_out WHERE batch_id = :batch")
                .param("batch", batch.id)
                .query((r, n) -> new InvoiceId(r.getLong(1)))
                .list());
        return due.selectAgain(question(batch.question), today, batch.id, new Marks(out, in));
    }

    private DueQuestion question(String kept) {
        return json.readValue(kept, DueQuestion.class);
    }

    private Paying.Grouping grouping(BatchEntity batch) {
        Paying.Grouping asked =
                batch.question == null ? null : question(batch.question).grouping();
        return asked == null ? Paying.Grouping.PAYEE : asked;
    }

    @Transactional
    public void undo(Actor by, BatchId id, long version) {
        turn(by, id, version, EditLog.State.DONE);
    }

    @Transactional
    public void redo(Actor by, BatchId id, long version) {
        turn(by, id, version, EditLog.State.UNDONE);
    }

    private void turn(Actor by, BatchId id, long version, EditLog.State from) {
        boolean undo = from == EditLog.State.DONE;
        BatchEntity batch = edit(by, id, version);
        if (batch.state != BatchState.DRAFT) {
            throw Refusal.conflict(
                    "not-a-draft", "Steps can be undone only in a draft. Change something, then it is a draft again.");
        }
        EditLog.Step step = log.last(batch.id, from)
                .orElseThrow(() -> Refusal.conflict(
                        "no-step", undo ? "There is no step to undo." : "There is no step to do again."));
        Draft before = rows.draft(batch.id);
        Draft after = undo ? before.swap(step.after(), step.before()) : before.swap(step.before(), step.after());
        long was = claimRows.amountMinor(batch.id);
        write(batch, before, after, true);
        log.turn(step, undo ? EditLog.State.UNDONE : EditLog.State.DONE);
        batches.changed(by, batch, (undo ? "undid: " : "did again: ") + step.what(), was);
    }

    /** What may change about a batch as a whole. */
    public record About(String name, String note, LocalDate ledgerDate, LocalDate checkDate) {}

    /**
     * Changes name, note, ledger date and check date until numbers are taken. The first three need no new approval, because
     * no digest covers them; another check date reckons every amount anew and voids the approval.
     */
    @Transactional
    public void about(Actor by, BatchId id, long version, About wanted) {
        BatchEntity batch = edit(by, id, version);
        if (wanted.name().isBlank()) {
            throw Refusal.invalidField("name-missing", "name", "Give the batch a name that others will know it by.");
        }
        List<String> what = new ArrayList<>();
        if (!batch.name.equals(wanted.name().strip())) {
            what.add("name “" + wanted.name().strip() + "”");
        }
        if (!batch.note.equals(wanted.note().strip())) {
            what.add("note");
        }
        batch.name = wanted.name().strip();
        batch.note = wanted.note().strip();
        if (!batch.ledgerDate.equals(wanted.ledgerDate())) {
            ledger.shareOpenPeriod(wanted.ledgerDate());
            what.add("ledger date " + Dates.inWords(wanted.ledgerDate()));
            batch.ledgerDate = wanted.ledgerDate();
            invoices.mustBeOpenOn(batch.ledgerDate, Claim.settling(claimRows.of(id)));
        }
        if (!batch.checkDate.equals(wanted.checkDate())) {
            what.add("check date " + Dates.inWords(wanted.checkDate()));
            checkDate(by, batch, Criteria.checkDate(wanted.checkDate(), by.today()));
        }
        if (what.isEmpty()) {
            return;
        }
        Batches.touch(batch, by, "changed " + String.join(", ", what));
        audit.record(by, "change about batch", "batch " + batch.id, Map.of("what", what));
    }

    /** Every amount is reckoned anew for the new day; what cannot be paid on it refuses the change by name. */
    private void checkDate(Actor by, BatchEntity batch, LocalDate day) {
        batch.checkDate = day;
        if (batch.nextRun != null && !batch.nextRun.isAfter(day)) {
            batch.nextRun = null;
        }
        Draft draft = rows.draft(batch.id);
        List<InvoiceId> named =
                draft.claims().stream().flatMap(c -> c.invoices().stream()).toList();
        refuseWhatCannotBeTaken(batch, candidates.named(named, batch.id), "paid then");
        long was = claimRows.amountMinor(batch.id);
        rows.replace(batch, draft.claims(), draft.claims(), accounts.company().graceDays());
        batches.changed(by, batch, "another check date, " + Dates.inWords(day), was);
    }

    private void refuseWhatCannotBeTaken(BatchEntity batch, List<Candidate> found, String done) {
        for (Selection.Row row : due.only(criteria(batch), found).rows()) {
            if (row.decision() instanceof Decision.LeftOut out) {
                throw Refusal.invalid(
                        "cannot-take",
                        row.candidate().payee().name() + " "
                                + row.candidate().invoice().reference() + " cannot be " + done + ": " + out.inWords()
                                + ".");
            }
        }
    }

    /** Closes a batch before anything left it; it is kept, its invoices are free again. */
    @Transactional
    public void withdraw(Actor by, BatchId id, long version) {
        by.mayDo(Deed.EDIT_BATCH);
        BatchEntity batch = batches.lock(id, version);
        BatchState before = batch.state;
        if (before.isLive() && !before.isEditable()) {
            throw Refusal.conflict(
                    "numbers-taken",
                    "Numbers of this batch are taken. Take its payments out one by one, or all of them, at Print: each "
                            + "number then has its answer, and the batch closes.");
        }
        BatchState after = before.to(BatchState.WITHDRAWN);
        batches.voided(by, batch, "withdrew it");
        batch.state = after;
        jdbc.sql("DELETE FROM reservation WHERE batch_id = :batch")
                .param("batch", batch.id)
                .update();
        Batches.touch(batch, by, "withdrew it");
        audit.record(by, "withdraw batch", "batch " + batch.id, Map.of("before", before.words()));
    }

    private BatchEntity edit(Actor by, BatchId id, long version) {
        by.mayDo(Deed.EDIT_BATCH);
        BatchEntity batch = batches.lock(id, version);
        if (!batch.state.isEditable()) {
            throw Refusal.conflict(
                    "not-editable",
                    "This batch is " + batch.state.words() + ", so its lines stand. What is posted can be voided.");
        }
        return batch;
    }

    private void change(Actor by, BatchEntity batch, UnaryOperator<Draft> edit, String what) {
        Draft before = rows.draft(batch.id);
        step(by, batch, before, edit.apply(before), what, true);
    }

    private void step(Actor by, BatchEntity batch, Draft before, Draft wanted, String what, boolean byHand) {
        Draft after = rows.identified(wanted);
        long was = claimRows.amountMinor(batch.id);
        Changed changed = write(batch, before, after, byHand);
        if (changed.isNothing()) {
            return;
        }
        log.record(by, batch.id, what, changed.before(), changed.after(), claimRows.amountMinor(batch.id));
        batches.changed(by, batch, what, was);
    }

    private record Changed(List<DraftClaim> before, List<DraftClaim> after) {
        boolean isNothing() {
            return before.isEmpty() && after.isEmpty();
        }
    }

    /** Writes what differs, and nothing else; what left by hand is not gathered again. */
    private Changed write(BatchEntity batch, Draft before, Draft after, boolean byHand) {
        Set<DraftClaim> kept = new HashSet<>(before.claims());
        kept.retainAll(new HashSet<>(after.claims()));
        List<DraftClaim> gone =
                before.claims().stream().filter(c -> !kept.contains(c)).toList();
        List<DraftClaim> come =
                after.claims().stream().filter(c -> !kept.contains(c)).toList();
        if (!gone.isEmpty() || !come.isEmpty()) {
            rows.replace(batch, gone, come, accounts.company().graceDays());
            Set<InvoiceId> left = invoices(gone);
            Set<InvoiceId> entered = invoices(come);
            Set<InvoiceId> stay = new HashSet<>(left);
            stay.retainAll(entered);
            left.removeAll(stay);
            entered.removeAll(stay);
            forget(batch.id, entered);
            if (byHand) {
                remember(batch.id, left);
            }
        }
        return new Changed(gone, come);
    }

    private static Set<InvoiceId> invoices(Collection<DraftClaim> claims) {
        return claims.stream().flatMap(c -> c.invoices().stream()).collect(Collectors.toCollection(HashSet::new));
    }

    private void remember(long batch, Set<InvoiceId> out) {
        if (!out.isEmpty()) {
            jdbc.sql(
                            "INSERT IGNORE INTO batch_out (batch_id, invoice_id) SELECT :batch, id FROM invoice WHERE id IN (:out)")
                    .param("batch", batch)
                    .param("out", out.stream().map(InvoiceId::value).toList())
                    .update();
        }
    }

    private void forget(long batch, Set<InvoiceId> in) {
        if (!in.isEmpty()) {
            jdbc.sql("DELETE FROM batch_out WHERE batch_id = :batch AND invoice_id IN (:in)")
                    .param("batch", batch)
                    .param("in", in.stream().map(InvoiceId::value).toList())
                    .update();
        }
    }

    private Criteria criteria(BatchEntity batch) {
        BankAccount account = accounts.get(new leveltally.core.ledger.BankAccountId(batch.bankAccountId));
        return new Criteria(
                account.currency(),
                batch.method,
                batch.checkDate,
                batch.ledgerDate,
                batch.checkDate,
                batch.nextRun,
                accounts.company().graceDays(),
                Filters.NONE,
                Paying.PLAIN);
    }

    private String references(Set<InvoiceId> ids) {
        if (ids.size() > 3) {
            return ids.size() + " invoices";
        }
        if (ids.isEmpty()) {
            return "nothing";
        }
        return few(jdbc.sql("SELECT reference FROM invoice WHERE id IN (:ids) ORDER BY id")
                .param("ids", ids.stream().map(InvoiceId::value).toList())
                .query(String.class)
                .list());
    }

    private static String few(List<String> references) {
        return references.size() > 3 ? references.size() + " invoices" : String.join(", ", references);
    }

    /** What changed since the batch was made, newest first. */
    @Transactional(readOnly = true)
    List<EditLog.Entry> changes(BatchId id) {
        return log.entries(id.value());
    }
}
