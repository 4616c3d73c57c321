package leveltally.server.batches;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Draft;
import leveltally.core.batches.DraftClaim;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.selection.CreditCandidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Eligibility;
import leveltally.server.selection.CandidateRows;
import leveltally.server.vendors.Vendors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which credits reduce the payments of a draft. */
@Service
public class ClaimCredits {
    private final Batches batches;
    private final DraftRows rows;
    private final CandidateRows candidates;
    private final Vendors vendors;
    private final Edits edits;

    ClaimCredits(Batches batches, DraftRows rows, CandidateRows candidates, Edits edits, Vendors vendors) {
        this.batches = batches;
        this.rows = rows;
        this.candidates = candidates;
        this.vendors = vendors;
        this.edits = edits;
    }

    /** Uses exactly these credits in a claim; they must be open, free and of its vendor and address. */
    @Transactional
    public void useCredits(Actor by, BatchId id, long version, ClaimId claim, List<InvoiceId> credits) {
        BatchEntity batch = edits.open(by, id, version);
        DraftClaim of = rows.draft(batch.id).claim(claim);
        Map<InvoiceId, CreditCandidate> usable = usable(batch, of, of.remitTo());
        for (InvoiceId credit : credits) {
            if (!usable.containsKey(credit)) {
                throw Refusal.invalid(
                        "credit-not-usable",
                        "Credit " + credit.value() + " cannot be used here: it is settled, held, in another batch, "
                                + "not usable yet, or of another address or currency. Look at the vendor's page.");
            }
        }
        String what = credits.isEmpty() ? "uses no credits" : "uses credits " + edits.references(Set.copyOf(credits));
        edits.change(by, batch, draft -> draft.useCredits(claim, credits), what);
    }

    /** Uses no credits any more, in the whole batch. */
    @Transactional
    public void releaseCredits(Actor by, BatchId id, long version) {
        BatchEntity batch = edits.open(by, id, version);
        edits.change(by, batch, Draft::releaseCredits, "released all credits");
    }

    /** Where the payment of a claim could go, and which credits could reduce it. */
    @Transactional(readOnly = true)
    ChoicesView choices(BatchId id, ClaimId claim) {
        BatchEntity batch = batches.row(id);
        DraftClaim of = rows.draft(batch.id).claims().stream()
                .filter(c -> claim.equals(c.id()))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(
                        "no-claim", "This payment is not in the batch any more. Look at the batch again."));
        return new ChoicesView(
                vendors.placesOf(of.vendor()).stream()
                        .map(place -> new ChoicesView.RemitToChoice(
                                place.id(),
                                place.remitTo().payee() + ", "
                                        + String.join(", ", place.remitTo().lines())))
                        .toList(),
                usable(batch, of, of.remitTo()).values().stream()
                        .map(CreditCandidate::credit)
                        .map(credit -> new ChoicesView.CreditChoice(
                                credit.id().value(),
                                credit.reference(),
                                credit.date(),
                                credit.open().toString(),
                                of.credits().contains(credit.id())))
                        .toList());
    }

    /** The credits a claim could use at an address, its own included, oldest first. */
    Map<InvoiceId, CreditCandidate> usable(BatchEntity batch, DraftClaim claim, long remitTo) {
        Criteria criteria = edits.criteria(batch);
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
}
