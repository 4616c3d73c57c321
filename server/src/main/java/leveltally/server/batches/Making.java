package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Purpose;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Selection;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.ledger.WayToPay;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.selection.SavedCriteria;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes drafts. Criteria run once, and what they take is reserved. */
@Service
public class Making {
    private final EntityManager entities;
    private final KeptQuestion kept;
    private final Batches batches;
    private final DraftRows rows;
    private final Due due;
    private final SavedCriteria saved;
    private final BankAccounts accounts;
    private final Periods periods;
    private final AuditTrail audit;

    Making(
            EntityManager entities,
            KeptQuestion kept,
            Batches batches,
            DraftRows rows,
            Due due,
            SavedCriteria saved,
            BankAccounts accounts,
            Periods periods,
            AuditTrail audit) {
        this.entities = entities;
        this.kept = kept;
        this.batches = batches;
        this.rows = rows;
        this.due = due;
        this.saved = saved;
        this.accounts = accounts;
        this.periods = periods;
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
        account.mustBeOpen();
        periods.shareForNew(by, asked.ledgerDay(account, by.today()));
        WayToPay way = account.payingWay(asked.wayId());
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
        batch.question = kept.kept(question);
        batch.claimOrder = criteria.paying().order();
        batch.state = BatchState.DRAFT;
        batch.preparedBy = by.person().value();
        batch.preparedAt = by.now();
        Batches.touch(batch, by, "made it");
        return batch;
    }
}
