package leveltally.server.posting;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.NumberState;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.posting.PaymentEntry;
import leveltally.server.advice.Advices;
import leveltally.server.approval.Verification;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.checks.BankEvents;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.invoices.OpenItems;
import leveltally.server.invoices.Settlements;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import leveltally.server.payments.Payments;
import leveltally.server.voiding.Undoing;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Posts the payments whose checks came out good, all in one transaction. */
@Service
public class Posting {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Verification verification;
    private final Payments payments;
    private final Checks checks;
    private final BankEvents told;
    private final OpenItems openItems;
    private final Settlements settlements;
    private final BankAccounts accounts;
    private final Ledger ledger;
    private final Periods periods;
    private final AccountRoles roles;
    private final AuditTrail audit;
    private final Advices advices;
    private final Undoing undoing;

    Posting(
            Batches batches,
            ClaimRows claimRows,
            Verification verification,
            Payments payments,
            Checks checks,
            BankEvents told,
            OpenItems openItems,
            Settlements settlements,
            BankAccounts accounts,
            Ledger ledger,
            Periods periods,
            AccountRoles roles,
            AuditTrail audit,
            Advices advices,
            Undoing undoing) {
        this.advices = advices;
        this.undoing = undoing;
        this.batches = batches;
        this.claimRows = claimRows;
        this.verification = verification;
        this.payments = payments;
        this.checks = checks;
        this.told = told;
        this.openItems = openItems;
        this.settlements = settlements;
        this.accounts = accounts;
        this.ledger = ledger;
        this.periods = periods;
        this.roles = roles;
        this.audit = audit;
    }

    /** How many payments this call posted, and how many of the batch are posted now. */
    public record Outcome(int postedNow, long postedInAll, int waiting) {}

    /**
     * Posts what is good: settlement rows, an entry per payment, checks outstanding, what the bank must hear. The batch's
     * row is locked first, so a second call finds nothing left and writes nothing; the period is shared, so it cannot be
     * locked meanwhile.
     */
    @Transactional
    public Outcome post(Actor by, BatchId id) {
        by.mayDo(Deed.POST);
        Batch batch = batches.lockAnyVersion(id);
        if (batch.state() != BatchState.NUMBERED && batch.state() != BatchState.POSTED) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words()
                            + ", so there is nothing to post. Its checks are printed first.");
        }
        List<Check> good = checks.unposted(id, EnumSet.of(NumberState.PRINTED));
        if (!good.isEmpty()) {
            periods.shareOpen(batch.ledgerDate());
            write(by, batch, good);
        }
        int waiting = waiting(batch);
        if (batch.state() == BatchState.NUMBERED && waiting == 0) {
            batches.move(by, id, BatchState.POSTED, "posted it");
        }
        if (!good.isEmpty()) {
            audit.record(by, "post", "batch " + id.value(), Map.of("payments", good.size(), "waiting", waiting));
        } else if (batch.state() == BatchState.NUMBERED) {
            throw Refusal.conflict(
                    "nothing-good", "No sheet of this batch is answered good yet. Answer for the sheets, then post.");
        }
        return new Outcome(good.size(), payments.postedCount(id), waiting);
    }

    private int waiting(Batch batch) {
        int numbered = checks.unposted(batch.id(), EnumSet.of(NumberState.TAKEN, NumberState.PRINTED))
                .size();
        Set<ClaimId> paid = payments.claims(batch.id());
        long unnumbered = claimRows.of(batch.id()).stream()
                .filter(claim -> !paid.contains(claim.id()))
                .count();
        return numbered + checks.withoutNumber(batch.id()).size() + (int) unnumbered;
    }

    private void write(Actor by, Batch batch, List<Check> good) {
        BankAccount account = accounts.get(batch.account());
        Map<ClaimId, Claim> claims =
                claimRows.of(batch.id()).stream().collect(Collectors.toMap(Claim::id, Function.identity()));
        List<Claim> posting =
                good.stream().map(check -> claims.get(check.payment().claim())).toList();
        verification.verify(batch, posting);
        Map<PaymentId, String> replaced = new HashMap<>();
        good.forEach(check -> {
            PaymentId old = check.payment().replaces();
            if (old != null) {
                replaced.put(old, check.name());
            }
        });
        undoing.replaced(by, replaced, batch.ledgerDate());
        Map<InvoiceId, Money> settling = Claim.settling(posting);
        openItems.mustBeOpenOn(batch.ledgerDate(), settling);
        Map<InvoiceId, AccountId> payables = openItems.payables(settling.keySet());
        var touched =
                new PaymentEntry.Accounts(account.cash(), roles.find(AccountRole.DISCOUNTS_TAKEN, account.currency()));
        List<ClaimId> released = new ArrayList<>();
        List<Payments.Entered> entered = new ArrayList<>();
        for (Check check : good) {
            Claim claim = claims.get(check.payment().claim());
            String text = check.name() + ", " + check.payment().payee();
            JournalEntry entry = PaymentEntry.of(batch.ledgerDate(), text, claim.lines(), payables, touched);
            EntryLinks links = EntryLinks.ofPayment(
                    batch.id().value(), check.payment().id().value());
            EntryId written = ledger.write(by, EntryKind.PAYMENT, entry, links);
            settlements.settle(
                    claim.lines(),
                    batch.ledgerDate(),
                    batch.id().value(),
                    check.payment().id().value(),
                    written);
            entered.add(new Payments.Entered(check.payment().id(), check.name(), written));
            released.add(claim.id());
        }
        told.tellIssues(batch.account(), good);
        payments.post(by, entered);
        claimRows.release(released);
        advices.tell(by, good.stream().map(check -> check.payment().id()).toList());
    }
}
