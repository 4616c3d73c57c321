package leveltally.core.batches;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Paying;
import leveltally.core.selection.Selection;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/** What was decided about the payments of a batch. Each edit moves only what it names and yields a new draft. */
public record Draft(List<DraftClaim> claims) {
    private static final int LONGEST_NOTE = 120;

    public Draft {
        claims = List.copyOf(claims);
    }

    /** An invoice to add, and where its payment goes. */
    public record Addition(VendorId vendor, long remitTo, DraftLine line) {}

    /** Adds to the vendor's payment that is not set apart, or makes one; each makes one where each is paid by itself. */
    public Draft add(List<Addition> additions, Paying.Grouping grouping) {
        List<DraftClaim> next = new ArrayList<>(claims);
        for (Addition addition : additions) {
            boolean alone = addition.line().ownCheck() || grouping == Paying.Grouping.INVOICE;
            int at = alone ? -1 : joinable(next, addition.vendor(), addition.remitTo());
            if (at < 0) {
                next.add(new DraftClaim(
                        null, addition.vendor(), addition.remitTo(), alone, "", List.of(addition.line())));
            } else {
                next.set(at, next.get(at).plus(List.of(addition.line())));
            }
        }
        return new Draft(next);
    }

    private static int joinable(List<DraftClaim> claims, VendorId vendor, long remitTo) {
        for (int i = 0; i < claims.size(); i++) {
            DraftClaim claim = claims.get(i);
            if (!claim.apart() && claim.remitTo() == remitTo && claim.vendor().equals(vendor)) {
                return i;
            }
        }
        return -1;
    }

    /** Takes invoices out; a payment left without invoices goes with its credits. */
    public Draft takeOut(Set<InvoiceId> invoices) {
        invoices.forEach(this::claimOf);
        return new Draft(claims.stream()
                .map(claim -> claim.without(invoices))
                .filter(claim -> !claim.invoices().isEmpty())
                .toList());
    }

    /** Pays part of an invoice, or all of it when {@code cash} is null. */
    public Draft pay(InvoiceId invoice, @Nullable Money cash) {
        return change(
                claimOf(invoice), claim -> claim.each(line -> line.id().equals(invoice) ? line.paying(cash) : line));
    }

    /** Gives an invoice its own check. */
    public Draft payAlone(InvoiceId invoice) {
        DraftClaim claim = claimOf(invoice);
        Draft marked = change(claim, c -> c.each(line -> line.id().equals(invoice) ? line.alone() : line));
        return claim.invoices().size() == 1
                ? marked.change(
                        marked.claimOf(invoice),
                        c -> c.without(new HashSet<>(c.credits())).setApart())
                : marked.moved(marked.claimOf(invoice), Set.of(invoice));
    }

    /** Moves whole invoices of one payment into a payment of their own. */
    public Draft split(Set<InvoiceId> invoices) {
        if (invoices.isEmpty()) {
            throw Refusal.invalid("nothing-selected", "Select the invoices that shall have a payment of their own.");
        }
        DraftClaim claim = claimOf(invoices.iterator().next());
        if (!claim.invoices().containsAll(invoices)) {
            throw Refusal.invalid(
                    "several-claims", "The selected invoices stand in several payments. Split one payment at a time.");
        }
        if (claim.invoices().size() == invoices.size()) {
            throw Refusal.invalid(
                    "nothing-left",
                    "These are all invoices of this payment, so there is nothing to split. Leave at least one.");
        }
        return moved(claim, invoices);
    }

    private Draft moved(DraftClaim claim, Set<InvoiceId> invoices) {
        List<DraftLine> moving = claim.lines().stream()
                .filter(line -> invoices.contains(line.id()))
                .toList();
        List<DraftClaim> next =
                new ArrayList<>(change(claim, c -> c.without(invoices)).claims());
        next.add(new DraftClaim(null, claim.vendor(), claim.remitTo(), true, "", moving));
        return new Draft(next);
    }

    /** Makes one payment of several to the same vendor and address. */
    public Draft join(Set<InvoiceId> invoices) {
        List<DraftClaim> joined =
                invoices.stream().map(this::claimOf).distinct().toList();
        if (joined.size() < 2) {
            throw Refusal.invalid(
                    "one-claim", "Select invoices of at least two payments to join, all to the same vendor.");
        }
        DraftClaim first = joined.get(0);
        for (DraftClaim other : joined) {
            if (!other.vendor().equals(first.vendor()) || other.remitTo() != first.remitTo()) {
                throw Refusal.invalid(
                        "other-payee",
                        "Only payments to the same vendor and the same address can be joined. Choose the same "
                                + "remit-to for them first.");
            }
            if (other.mustStandAlone()) {
                throw Refusal.invalid(
                        "own-check",
                        "One of these invoices must have its own check, so its payment cannot be joined. "
                                + "Leave it out of the selection.");
            }
        }
        List<DraftLine> lines =
                joined.stream().flatMap(claim -> claim.lines().stream()).toList();
        boolean apart = joined.stream().allMatch(DraftClaim::apart);
        DraftClaim whole = new DraftClaim(first.id(), first.vendor(), first.remitTo(), apart, first.stubNote(), lines);
        List<DraftClaim> next = new ArrayList<>(claims);
        next.set(next.indexOf(first), whole);
        next.removeAll(joined);
        return new Draft(next);
    }

    /**
     * Sends a payment to another of the vendor's addresses.
     *
     * @param usable the credits that address can use; others are released
     */
    public Draft sendTo(ClaimId id, long remitTo, Set<InvoiceId> usable) {
        return change(claim(id), c -> {
            Set<InvoiceId> released = new HashSet<>(c.credits());
            released.removeAll(usable);
            List<DraftLine> lines = c.without(released).lines();
            return new DraftClaim(c.id(), c.vendor(), remitTo, true, c.stubNote(), lines);
        });
    }

    public Draft note(ClaimId id, String note) {
        String text = note.strip();
        if (text.length() > LONGEST_NOTE) {
            throw Refusal.invalidField(
                    "note-too-long",
                    "note",
                    "The stub has room for " + LONGEST_NOTE + " characters; this note has " + text.length()
                            + ". Shorten it.");
        }
        return change(claim(id), c -> new DraftClaim(c.id(), c.vendor(), c.remitTo(), c.apart(), text, c.lines()));
    }

    /** Lists invoices on the stub by themselves, or sums them up in one line. */
    public Draft show(Set<InvoiceId> invoices, boolean onStub) {
        invoices.forEach(this::claimOf);
        return new Draft(claims.stream()
                .map(claim -> claim.each(line -> invoices.contains(line.id()) ? line.shown(onStub) : line))
                .toList());
    }

    /** Uses exactly these credits in a payment. */
    public Draft useCredits(ClaimId id, List<InvoiceId> credits) {
        DraftClaim claim = claim(id);
        if (claim.mustStandAlone() && !credits.isEmpty()) {
            throw Refusal.invalid(
                    "own-check", "This invoice must be paid by itself, so no credit can reduce its check.");
        }
        return change(
                claim,
                c -> c.without(new HashSet<>(c.credits()))
                        .plus(credits.stream().map(DraftLine::credit).toList()));
    }

    /** Lets credits reduce the payment an invoice stands in, besides those it uses. */
    Draft addCredits(InvoiceId beside, List<InvoiceId> credits) {
        return change(
                claimOf(beside),
                claim -> claim.plus(credits.stream().map(DraftLine::credit).toList()));
    }

    /** Uses no credits any more, anywhere. */
    public Draft releaseCredits() {
        return new Draft(
                claims.stream().map(c -> c.without(new HashSet<>(c.credits()))).toList());
    }

    /** Puts claims in the place of others, known by their ids: how a step is undone and done again. */
    public Draft swap(List<DraftClaim> gone, List<DraftClaim> back) {
        Set<ClaimId> named = new HashSet<>();
        gone.forEach(claim -> named.add(claim.id()));
        back.forEach(claim -> named.add(claim.id()));
        List<DraftClaim> next = new ArrayList<>(
                claims.stream().filter(claim -> !named.contains(claim.id())).toList());
        next.addAll(back);
        return new Draft(next);
    }

    /** A draft of what was chosen. */
    public static DraftClaim chosen(Selection.ClaimDraft claim) {
        List<DraftLine> lines =
                new ArrayList<>(claim.rows().stream().map(Draft::line).toList());
        claim.credits().forEach(use -> lines.add(DraftLine.credit(use.credit().id())));
        return new DraftClaim(null, claim.payee().vendor(), claim.payee().remitTo(), claim.apart(), "", lines);
    }

    /** A line of what was chosen; cash that does not settle all of it stays as it is. */
    static DraftLine line(Selection.Row row) {
        Decision.Taken taken = (Decision.Taken) row.decision();
        var invoice = row.candidate().invoice();
        boolean all = taken.credit().plus(taken.payment().settled()).equals(invoice.open());
        return new DraftLine(
                ClaimLine.Kind.INVOICE,
                invoice.id(),
                all ? null : taken.payment().cash(),
                taken.byHand(),
                false,
                row.candidate().ownCheck());
    }

    private Draft change(DraftClaim which, UnaryOperator<DraftClaim> how) {
        return new Draft(claims.stream()
                .map(claim -> claim == which ? how.apply(claim) : claim)
                .toList());
    }

    public DraftClaim claim(ClaimId id) {
        return claims.stream()
                .filter(claim -> id.equals(claim.id()))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(
                        "no-claim", "This payment is not in the batch any more. Look at the batch again."));
    }

    public DraftClaim claimOf(InvoiceId invoice) {
        return claims.stream()
                .filter(claim -> claim.holds(invoice))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(
                        "not-in-batch", "This invoice is not in the batch any more. Look at the batch again."));
    }
}
