package leveltally.server.batches;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Draft;
import leveltally.core.batches.DraftClaim;
import leveltally.core.batches.DraftLine;
import leveltally.core.batches.Reckoning;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.Paying;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.Companies;
import leveltally.server.invoices.OpenItems;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.selection.CandidateRows;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Edits drafts: what is in, what it pays, where it goes. An edit moves only what it names, is saved at once, and can be undone
 * while the batch is a draft.
 */
@Service
public class Drafting {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final DraftRows rows;
    private final EditLog log;
    private final CandidateRows candidates;
    private final OpenItems openItems;
    private final Vendors vendors;
    private final BankAccounts accounts;
    private final Companies companies;
    private final AuditTrail audit;
    private final Edits edits;
    private final KeptQuestion question;
    private final ClaimCredits credits;

    Drafting(
            Batches batches,
            ClaimRows claimRows,
            DraftRows rows,
            EditLog log,
            CandidateRows candidates,
            OpenItems openItems,
            Vendors vendors,
            BankAccounts accounts,
            Companies companies,
            AuditTrail audit,
            Edits edits,
            KeptQuestion question,
            ClaimCredits credits) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.rows = rows;
        this.log = log;
        this.candidates = candidates;
        this.openItems = openItems;
        this.vendors = vendors;
        this.accounts = accounts;
        this.companies = companies;
        this.audit = audit;
        this.edits = edits;
        this.question = question;
        this.credits = credits;
    }

    /** Adds open invoices, due or not; the first that cannot be taken refuses them all with its reason. */
    @Transactional
    public void add(Actor by, BatchId id, long version, List<InvoiceId> wanted) {
        BatchEntity batch = edits.open(by, id, version);
        List<Candidate> found = candidates.named(wanted, 0);
        if (found.size() < new HashSet<>(wanted).size()) {
            throw Refusal.invalid(
                    "not-open",
                    "One of these invoices is not open any more, so it cannot be added. Search for it again.");
        }
        edits.refuseWhatCannotBeTaken(batch, found, "added");
        List<Draft.Addition> additions = found.stream()
                .map(candidate -> new Draft.Addition(
                        candidate.payee().vendor(),
                        candidate.payee().remitTo(),
                        DraftLine.invoice(candidate.invoice().id(), true, candidate.ownCheck())))
                .toList();
        List<String> references =
                found.stream().map(c -> c.invoice().reference()).toList();
        Paying.Grouping grouping = question.grouping(batch);
        edits.change(by, batch, draft -> draft.add(additions, grouping), "added " + Edits.few(references));
    }

    /** Takes invoices out; gathering again leaves them out. A claim left empty disappears. */
    @Transactional
    public void takeOut(Actor by, BatchId id, long version, Set<InvoiceId> invoices) {
        BatchEntity batch = edits.open(by, id, version);
        if (batch.state != BatchState.DRAFT) {
            Set<ClaimId> whole = wholeClaims(rows.draft(batch.id), invoices);
            if (!whole.isEmpty()) {
                takeOutPayments(by, id, whole, "took out " + edits.references(invoices));
                return;
            }
        }
        edits.change(by, batch, draft -> draft.takeOut(invoices), "took out " + edits.references(invoices));
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
        Edits.Changed changed = edits.write(batch, before, after, true);
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
        BatchEntity batch = edits.open(by, id, version);
        edits.change(by, batch, draft -> new Draft(List.of()), "took everything out");
    }

    /** Pays part of an invoice, or all of it when {@code cash} is null. */
    @Transactional
    public void pay(Actor by, BatchId id, long version, InvoiceId invoice, @Nullable String cash) {
        BatchEntity batch = edits.open(by, id, version);
        BankAccount account = accounts.get(new leveltally.core.ledger.BankAccountId(batch.bankAccountId));
        Money typed = cash == null ? null : Money.typed(cash, account.currency(), "cash");
        Money kept = typed == null ? null : kept(batch, invoice, typed);
        String what = kept == null ? "pays all of " : "pays " + kept + " on ";
        edits.change(by, batch, draft -> draft.pay(invoice, kept), what + edits.references(Set.of(invoice)));
    }

    private @Nullable Money kept(BatchEntity batch, InvoiceId invoice, Money typed) {
        DraftClaim claim = rows.draft(batch.id).claimOf(invoice);
        List<InvoiceId> named = new ArrayList<>(claim.invoices());
        named.addAll(claim.credits());
        return Reckoning.typed(
                claim,
                invoice,
                typed,
                openItems.stillOpen(named),
                openItems.openCredits(named),
                batch.checkDate,
                companies.company().graceDays());
    }

    /** Gives an invoice its own check. */
    @Transactional
    public void payAlone(Actor by, BatchId id, long version, InvoiceId invoice) {
        BatchEntity batch = edits.open(by, id, version);
        edits.change(by, batch, draft -> draft.payAlone(invoice), "own check for " + edits.references(Set.of(invoice)));
    }

    @Transactional
    public void split(Actor by, BatchId id, long version, Set<InvoiceId> invoices) {
        BatchEntity batch = edits.open(by, id, version);
        edits.change(
                by, batch, draft -> draft.split(invoices), "a payment of its own for " + edits.references(invoices));
    }

    @Transactional
    public void join(Actor by, BatchId id, long version, Set<InvoiceId> invoices) {
        BatchEntity batch = edits.open(by, id, version);
        edits.change(by, batch, draft -> draft.join(invoices), "joined the payments of " + edits.references(invoices));
    }

    /** Sends a claim to another address of its vendor. */
    @Transactional
    public void sendTo(Actor by, BatchId id, long version, ClaimId claim, long remitTo) {
        BatchEntity batch = edits.open(by, id, version);
        Place place = vendors.places(List.of(remitTo)).get(remitTo);
        DraftClaim of = rows.draft(batch.id).claim(claim);
        if (place == null || of.vendor().value() != place.vendor()) {
            throw Refusal.invalidField(
                    "other-vendor", "remitTo", "This is no address of that vendor. Choose one of its own.");
        }
        Set<InvoiceId> usable = credits.usable(batch, of, remitTo).keySet();
        edits.change(
                by,
                batch,
                draft -> draft.sendTo(claim, remitTo, usable),
                "sends the payment to " + place.remitTo().payee() + ", "
                        + String.join(", ", place.remitTo().lines()));
    }

    @Transactional
    public void note(Actor by, BatchId id, long version, ClaimId claim, String note) {
        BatchEntity batch = edits.open(by, id, version);
        edits.change(by, batch, draft -> draft.note(claim, note), "stub note “" + note.strip() + "”");
    }

    /** Lists invoices on the stub by themselves, or sums them up. */
    @Transactional
    public void show(Actor by, BatchId id, long version, Set<InvoiceId> invoices, boolean onStub) {
        BatchEntity batch = edits.open(by, id, version);
        String what = onStub ? "lists on the stub " : "sums up on the stub ";
        edits.change(by, batch, draft -> draft.show(invoices, onStub), what + edits.references(invoices));
    }
}
