package leveltally.server.batches;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.Draft;
import leveltally.core.batches.Purpose;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.selection.Criteria;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.Companies;
import leveltally.server.invoices.OpenItems;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.selection.CandidateRows;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changes what a batch as a whole is called and dated. */
@Service
public class AboutBatch {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final DraftRows rows;
    private final CandidateRows candidates;
    private final OpenItems openItems;
    private final BankAccounts accounts;
    private final Companies companies;
    private final Periods periods;
    private final AuditTrail audit;
    private final Edits edits;

    AboutBatch(
            Batches batches,
            ClaimRows claimRows,
            DraftRows rows,
            CandidateRows candidates,
            OpenItems openItems,
            BankAccounts accounts,
            Companies companies,
            Periods periods,
            AuditTrail audit,
            Edits edits) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.rows = rows;
        this.candidates = candidates;
        this.openItems = openItems;
        this.accounts = accounts;
        this.companies = companies;
        this.periods = periods;
        this.audit = audit;
        this.edits = edits;
    }

    /**
     * Changes name, note, ledger date and check date until numbers are taken. The first three need no new approval, because
     * no digest covers them; another check date reckons every amount anew and voids the approval.
     */
    @Transactional
    public void about(Actor by, BatchId id, long version, About wanted) {
        BatchEntity batch = edits.openAbout(by, id, version);
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
            periods.shareForNew(by, wanted.ledgerDate());
            what.add("ledger date " + Dates.inWords(wanted.ledgerDate()));
            batch.ledgerDate = wanted.ledgerDate();
            if (batch.purpose != Purpose.REISSUE) {
                // what is kept is open again by the deed that posts it
                openItems.mustBeOpenOn(batch.ledgerDate, Claim.settling(claimRows.of(id)));
            }
        }
        if (!batch.checkDate.equals(wanted.checkDate())) {
            if (batch.purpose != Purpose.DIRECT) {
                Edits.mustNotBeKept(batch);
            }
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
        if (batch.purpose == Purpose.DIRECT) {
            // no amount of it hangs on the day
            long same = claimRows.amountMinor(batch.id);
            batches.changed(by, batch, "another check date, " + Dates.inWords(day), same);
            return;
        }
        Draft draft = rows.draft(batch.id);
        List<InvoiceId> named =
                draft.claims().stream().flatMap(c -> c.invoices().stream()).toList();
        edits.refuseWhatCannotBeTaken(batch, candidates.named(named, batch.id), "paid then");
        long was = claimRows.amountMinor(batch.id);
        rows.replace(batch, draft.claims(), draft.claims(), companies.company().graceDays());
        batches.changed(by, batch, "another check date, " + Dates.inWords(day), was);
    }
}
