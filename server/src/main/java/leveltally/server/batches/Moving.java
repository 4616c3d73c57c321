package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.DraftClaim;
import leveltally.core.batches.Purpose;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.LeftOutReason;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.WayToPay;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Moves a payment of a draft to another way: out of its batch, and by hand into one that pays that way. */
@Service
public class Moving {
    private static final int MOST_NAME = 80;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Batches batches;
    private final DraftRows rows;
    private final Edits edits;
    private final Drafting drafting;
    private final BankAccounts accounts;
    private final Vendors vendors;
    private final AuditTrail audit;

    Moving(
            EntityManager entities,
            JdbcClient jdbc,
            Batches batches,
            DraftRows rows,
            Edits edits,
            Drafting drafting,
            BankAccounts accounts,
            Vendors vendors,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.batches = batches;
        this.rows = rows;
        this.edits = edits;
        this.drafting = drafting;
        this.accounts = accounts;
        this.vendors = vendors;
        this.audit = audit;
    }

    /**
     * A way a payment could go instead.
     *
     * @param against why it cannot; empty where it can
     * @param drafts that pay this way and could take it
     */
    public record WayInstead(
            long account,
            String accountName,
            long way,
            String name,
            String by,
            String against,
            List<DraftOfWay> drafts) {}

    public record DraftOfWay(long batch, String name) {}

    /** The other ways of the accounts in its currency. */
    @Transactional(readOnly = true)
    public List<WayInstead> ways(Actor by, BatchId id, ClaimId claim) {
        by.mayDo(Deed.READ);
        BatchEntity batch = batches.row(id);
        DraftClaim moving = rows.draft(batch.id).claim(claim);
        BankAccount from = accounts.get(new BankAccountId(batch.bankAccountId));
        Set<PaymentMethod> allowed = vendors.paidBy(moving.vendor());
        Place place = vendors.places(List.of(moving.remitTo())).get(moving.remitTo());
        List<WayInstead> ways = new ArrayList<>();
        for (BankAccount account : accounts.list()) {
            if (account.closedOn() != null || !account.currency().equals(from.currency())) {
                continue;
            }
            for (WayToPay way : account.payingWays()) {
                if (way.id().value() != batch.wayId) {
                    ways.add(new WayInstead(
                            account.id().value(),
                            account.name(),
                            way.id().value(),
                            way.name(),
                            way.method().words(),
                            against(way.method(), batch.method, allowed, place),
                            drafts(way.id(), batch)));
                }
            }
        }
        return ways;
    }

    private static String against(
            PaymentMethod to, PaymentMethod from, Set<PaymentMethod> allowed, @Nullable Place place) {
        if (to != from && !allowed.contains(to)) {
            return "the vendor is not paid by " + to.words() + ". Allow it on the vendor's page.";
        }
        return place == null
                ? ""
                : place.reach()
                        .missingFor(to)
                        .map(LeftOutReason::of)
                        .map(why -> why.words() + ". " + why.wayOut())
                        .orElse("");
    }

    private List<DraftOfWay> drafts(WayId way, BatchEntity like) {
        return jdbc.sql(
                        "SELECT id, name FROM batch WHERE way_id = ? AND state = ? AND purpose = ? AND check_date = ? AND id <> ?"
                                + " ORDER BY id DESC LIMIT 20")
                .params(way.value(), BatchState.DRAFT.name(), Purpose.RUN.name(), like.checkDate, like.id)
                .query((r, n) -> new DraftOfWay(r.getLong("id"), r.getString("name")))
                .list();
    }

    /**
     * Where it goes.
     *
     * @param into a draft of that way; null for a new one
     */
    public record To(
            BankAccountId account, WayId way, @Nullable BatchId into) {}

    /**
     * Moves the invoices of a payment; credits that reduced it are released, and can be used again there.
     *
     * @return the batch it stands in now
     * @throws Refusal when that way does not reach the payee, or the vendor is not paid so
     */
    @Transactional
    public BatchId move(Actor by, BatchId id, long version, ClaimId claim, To to) {
        BatchEntity batch = edits.open(by, id, version);
        if (batch.state != BatchState.DRAFT) {
            throw Refusal.conflict(
                    "not-a-draft",
                    "This batch is " + batch.state.words() + ". Have it sent back first, then move the payment.");
        }
        DraftClaim moving = rows.draft(batch.id).claim(claim);
        List<InvoiceId> invoices = moving.invoices();
        BankAccount account = accounts.get(to.account());
        account.mustBeOpen();
        WayToPay way = account.payingWay(to.way());
        String payee = vendors.places(List.of(moving.remitTo()))
                .get(moving.remitTo())
                .remitTo()
                .payee();
        if (way.id().value() == batch.wayId) {
            throw Refusal.invalid("same-way", "It is paid so already. Choose another way.");
        }
        edits.change(
                by,
                batch,
                draft -> draft.takeOut(new HashSet<>(invoices)),
                "moved " + payee + " to " + way.method().words());
        entities.flush();
        BatchId into = to.into() == null ? begin(by, batch, account, way) : to.into();
        BatchEntity target = batches.row(into);
        if (target.wayId != way.id().value() || target.purpose != Purpose.RUN) {
            throw Refusal.invalid("other-way", "That batch does not pay this way. Choose one that does.");
        }
        drafting.add(by, into, target.version, invoices);
        audit.record(
                by,
                "move payment",
                "batch " + batch.id,
                Map.of(
                        "payee",
                        payee,
                        "to",
                        "batch " + into.value(),
                        "by",
                        way.method().words()));
        return into;
    }

    private BatchId begin(Actor by, BatchEntity like, BankAccount account, WayToPay way) {
        String ending = ", by " + way.method().words();
        BatchEntity batch = BatchEntity.draft(
                by,
                Purpose.RUN,
                like.name.substring(0, Math.min(like.name.length(), MOST_NAME - ending.length())) + ending,
                "",
                account,
                way,
                like.checkDate);
        batch.ledgerDate = like.ledgerDate;
        batch.nextRun = like.nextRun;
        batch.claimOrder = like.claimOrder;
        entities.persist(batch);
        entities.flush();
        batches.addHand(batch, by);
        return new BatchId(Objects.requireNonNull(batch.id));
    }
}
