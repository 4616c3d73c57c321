package leveltally.server.batches;

import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Draft;
import leveltally.core.batches.DraftClaim;
import leveltally.core.batches.Purpose;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Filters;
import leveltally.core.selection.Paying;
import leveltally.core.selection.Selection;
import leveltally.server.company.Companies;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.selection.Due;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The one gate of every edit of a draft: who may, on which version, what differs, what is kept of it. */
@Component
class Edits {
    private final JdbcClient jdbc;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final DraftRows rows;
    private final EditLog log;
    private final Due due;
    private final BankAccounts accounts;
    private final Companies companies;

    Edits(
            JdbcClient jdbc,
            Batches batches,
            ClaimRows claimRows,
            DraftRows rows,
            EditLog log,
            Due due,
            BankAccounts accounts,
            Companies companies) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.claimRows = claimRows;
        this.rows = rows;
        this.log = log;
        this.due = due;
        this.accounts = accounts;
        this.companies = companies;
    }

    /** The batch, locked, when whoever asks may edit it and saw its last version. */
    BatchEntity open(Actor by, BatchId id, long version) {
        BatchEntity batch = openAbout(by, id, version);
        mustNotBeKept(batch);
        return batch;
    }

    /** @throws Refusal for a batch whose lines are those of another payment and stand as they are */
    static void mustNotBeKept(BatchEntity batch) {
        if (batch.purpose == Purpose.OUTSIDE) {
            throw Refusal.conflict(
                    "recorded-stands",
                    "This batch records payments that were made elsewhere. Change what is recorded on its own page, where it"
                            + " was entered.");
        }
        if (batch.purpose == Purpose.DIRECT) {
            throw Refusal.conflict(
                    "direct-stands",
                    "This batch pays what was typed without an invoice. Change that on its own page, where it was typed.");
        }
        if (batch.purpose == Purpose.REISSUE) {
            throw Refusal.conflict(
                    "reissue-stands",
                    "This batch pays a check once more, with its lines as they were. Send it as it is, or withdraw it and"
                            + " reissue the check on another day or to another address.");
        }
    }

    /** The same for what is said of the batch as a whole, whose lines stay as they are. */
    BatchEntity openAbout(Actor by, BatchId id, long version) {
        by.mayDo(Deed.EDIT_BATCH);
        BatchEntity batch = batches.lock(id, version);
        if (!batch.state.isEditable()) {
            throw Refusal.conflict(
                    "not-editable",
                    "This batch is " + batch.state.words() + ", so its lines stand. What is posted can be voided.");
        }
        return batch;
    }

    /** Applies an edit, saves what differs, and keeps it as a step that can be undone. */
    void change(Actor by, BatchEntity batch, UnaryOperator<Draft> edit, String what) {
        Draft before = rows.draft(batch.id);
        step(by, batch, before, edit.apply(before), what, true);
    }

    /** @param byHand what leaves is not gathered again */
    void step(Actor by, BatchEntity batch, Draft before, Draft wanted, String what, boolean byHand) {
        Draft after = rows.identified(wanted);
        long was = claimRows.amountMinor(batch.id);
        Changed changed = write(batch, before, after, byHand);
        if (changed.isNothing()) {
            return;
        }
        log.record(by, batch.id, what, changed.before(), changed.after(), claimRows.amountMinor(batch.id));
        batches.changed(by, batch, what, was);
    }

    record Changed(List<DraftClaim> before, List<DraftClaim> after) {
        boolean isNothing() {
            return before.isEmpty() && after.isEmpty();
        }
    }

    /** Writes what differs, and nothing else; what left by hand is not gathered again. */
    Changed write(BatchEntity batch, Draft before, Draft after, boolean byHand) {
        Set<DraftClaim> kept = new HashSet<>(before.claims());
        kept.retainAll(new HashSet<>(after.claims()));
        List<DraftClaim> gone =
                before.claims().stream().filter(c -> !kept.contains(c)).toList();
        List<DraftClaim> come =
                after.claims().stream().filter(c -> !kept.contains(c)).toList();
        if (!gone.isEmpty() || !come.isEmpty()) {
            rows.replace(batch, gone, come, companies.company().graceDays());
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

    /** What may stand in a batch as it is dated now. */
    Criteria criteria(BatchEntity batch) {
        BankAccount account = accounts.get(new leveltally.core.ledger.BankAccountId(batch.bankAccountId));
        return new Criteria(
                account.currency(),
                batch.method,
                batch.checkDate,
                batch.ledgerDate,
                batch.checkDate,
                batch.nextRun,
                companies.company().graceDays(),
                Filters.NONE,
                Paying.PLAIN);
    }

    /** Some of them by reference, many by their number. */
    String references(Set<InvoiceId> ids) {
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

    static String few(List<String> references) {
        return references.size() > 3 ? references.size() + " invoices" : String.join(", ", references);
    }

    /** @throws Refusal naming the first that such a batch cannot take, and why */
    void refuseWhatCannotBeTaken(BatchEntity batch, List<Candidate> found, String done) {
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
}
