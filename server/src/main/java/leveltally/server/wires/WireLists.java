package leveltally.server.wires;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.wires.Confirmation;
import leveltally.server.approval.Verification;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Obstacles;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.payments.Payments;
import leveltally.server.printing.Paperless;
import leveltally.server.printing.TakingOut;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Puts approved wires on a list to be ordered at the bank's site, and writes down what the bank said of each. */
@Service
public class WireLists {
    private final WireOrders orders;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Obstacles obstacles;
    private final Verification verification;
    private final BankAccounts accounts;
    private final Periods periods;
    private final Payments payments;
    private final Paperless paperless;
    private final TakingOut takingOut;
    private final AuditTrail audit;

    WireLists(
            WireOrders orders,
            Batches batches,
            ClaimRows claimRows,
            Obstacles obstacles,
            Verification verification,
            BankAccounts accounts,
            Periods periods,
            Payments payments,
            Paperless paperless,
            TakingOut takingOut,
            AuditTrail audit) {
        this.orders = orders;
        this.batches = batches;
        this.claimRows = claimRows;
        this.obstacles = obstacles;
        this.verification = verification;
        this.accounts = accounts;
        this.periods = periods;
        this.payments = payments;
        this.paperless = paperless;
        this.takingOut = takingOut;
        this.audit = audit;
    }

    /** Why payments of a batch that stand on no list cannot go onto one; those that can are missing. */
    Map<ClaimId, String> behind(BatchId batch, List<Claim> waiting, Map<ClaimId, List<String>> held) {
        Map<ClaimId, String> banks = claimRows.sealedBanks(batch);
        Map<ClaimId, String> behind = new LinkedHashMap<>();
        for (Claim claim : waiting) {
            List<String> own = held.getOrDefault(claim.id(), List.of());
            if (!banks.containsKey(claim.id())) {
                behind.put(claim.id(), claim.remitTo().payee() + " has no bank details in this batch. Take it out.");
            } else if (!own.isEmpty()) {
                behind.put(
                        claim.id(),
                        claim.remitTo().payee() + ": " + String.join("; ", own)
                                + ". Take it out, have the hold released, or send it again with what is true now.");
            }
        }
        return behind;
    }

    /**
     * Puts all that can on the list, each under its own reference; nothing is ordered by it. Others stay behind with their reason.
     *
     * @return how many were put there
     */
    @Transactional
    public int list(Actor by, BatchId id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        Batch batch = batches.lockAnyVersion(id);
        mustBeWires(batch);
        accounts.lock(batch.account());
        periods.shareOpen(batch.ledgerDate());
        Set<ClaimId> paid = payments.claims(id);
        List<Claim> waiting = claimRows.of(id).stream()
                .filter(claim -> !paid.contains(claim.id()))
                .toList();
        Map<ClaimId, String> behind = behind(
                id, waiting, obstacles.shared(waiting.stream().map(Claim::id).toList()));
        List<Claim> ready = waiting.stream()
                .filter(claim -> !behind.containsKey(claim.id()))
                .toList();
        if (ready.isEmpty()) {
            throw Refusal.conflict(
                    "nothing-to-list",
                    behind.isEmpty()
                            ? "Every payment of this batch stands on the list already."
                            : "None can go onto the list as it stands: "
                                    + behind.values().stream().distinct().collect(Collectors.joining(" ")));
        }
        verification.verify(batch, ready);
        List<PaymentId> made = payments.prepare(by, batch, ready);
        paperless.keep(batch, ready, made, orders.references(batch.way(), ready.size()));
        orders.put(by, batch.way(), made, ready);
        if (batch.state() == BatchState.APPROVED) {
            batches.move(by, id, BatchState.FILED, "put it on the list of wires");
        }
        audit.record(
                by, "list wires", "batch " + id.value(), Map.of("payments", ready.size(), "behind", behind.size()));
        return ready.size();
    }

    private static void mustBeWires(Batch batch) {
        if (batch.method() != PaymentMethod.WIRE || batch.purpose().isAfterTheFact()) {
            throw Refusal.conflict(
                    "no-wires", "This batch pays by " + batch.method().words() + ", which no list of ours orders.");
        }
        if (batch.state() != BatchState.APPROVED && batch.state() != BatchState.FILED) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ". Only an approved batch goes onto the list.");
        }
    }

    /** What somebody typed of a wire that was ordered. */
    public record Typed(String bankReference, String fee, LocalDate sentOn) {}

    /**
     * Writes down what the bank said of a wire, or corrects that until it is posted. Nothing unconfirmed is posted.
     *
     * @throws Refusal when it is in the ledger, or another wire has that reference
     */
    @Transactional
    public void confirm(Actor by, PaymentId id, Typed typed) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        // the batch is held first, as whoever posts it or takes out of it does
        batches.lockAnyVersion(order(id).batch());
        WireOrders.Order order = order(id);
        if (order.posted()) {
            throw Refusal.conflict(
                    "wire-posted", order.called() + " is in the ledger, so what the bank said of it stands.");
        }
        Confirmation said = Confirmation.typed(
                typed.bankReference(),
                typed.fee(),
                order.amount().currency(),
                typed.sentOn(),
                order.listedOn(),
                by.today());
        if (!orders.confirm(by, id, said)) {
            throw Refusal.invalidField(
                    "wire-reference-used",
                    "bankReference",
                    "Another wire from this account carries " + said.bankReference()
                            + " already. Look at the bank's confirmation again.");
        }
        Confirmation before = order.confirmed();
        audit.record(
                by,
                "confirm wire",
                "payment " + id.value(),
                Map.of(
                        "wire",
                        order.called(),
                        "reference",
                        said.bankReference(),
                        "fee",
                        said.fee().toString(),
                        "sent",
                        said.sentOn().toString(),
                        "before",
                        before == null ? "" : before.bankReference()));
    }

    private WireOrders.Order order(PaymentId id) {
        return orders.of(id)
                .orElseThrow(() -> Refusal.notFound("no-wire", "This wire stands on no list any more. Look again."));
    }

    /** Takes payments out that the bank has not sent. */
    @Transactional
    public void takeOut(Actor by, BatchId id, Set<ClaimId> claims, String why) {
        by.mayDo(Deed.PRINT);
        batches.lockAnyVersion(id);
        Map<ClaimId, WireOrders.Order> listed = orders.of(id);
        claims.stream()
                .filter(listed::containsKey)
                .map(listed::get)
                .filter(order -> order.confirmed() != null)
                .findFirst()
                .ifPresent(order -> {
                    throw Refusal.conflict(
                            "wire-sent",
                            order.called() + " was sent by the bank. "
                                    + (order.posted() ? "Reverse it instead." : "Post it, then reverse it."));
                });
        takingOut.takeOut(by, id, claims, false, why);
    }
}
