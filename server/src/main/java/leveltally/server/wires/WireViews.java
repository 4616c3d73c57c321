package leveltally.server.wires;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.core.vendors.BankDetails;
import leveltally.core.wires.Confirmation;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Obstacles;
import leveltally.server.frame.Seal;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.payments.Payments;
import leveltally.server.reports.ReportFiles;
import leveltally.server.wires.WireOrders.Order;
import leveltally.server.wires.WiresView.Step;
import leveltally.server.wires.WiresView.WireField;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Puts the wires of a batch before whoever orders them: on screen, one by one, and as a list to print. */
@Service
class WireViews {
    private static final int LONGEST_PURPOSE = 140;

    private final WireOrders orders;
    private final WireLists lists;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Obstacles obstacles;
    private final Payments payments;
    private final BankAccounts accounts;
    private final ReportFiles files;
    private final Seal seal;
    private final AuditTrail audit;

    WireViews(
            WireOrders orders,
            WireLists lists,
            Batches batches,
            ClaimRows claimRows,
            Obstacles obstacles,
            Payments payments,
            BankAccounts accounts,
            ReportFiles files,
            Seal seal,
            AuditTrail audit) {
        this.orders = orders;
        this.lists = lists;
        this.batches = batches;
        this.claimRows = claimRows;
        this.obstacles = obstacles;
        this.payments = payments;
        this.accounts = accounts;
        this.files = files;
        this.seal = seal;
        this.audit = audit;
    }

    @Transactional(readOnly = true)
    WiresView of(Actor by, BatchId id) {
        by.mayDo(Deed.READ);
        Batch batch = batches.get(id);
        BankAccount account = accounts.get(batch.account());
        boolean listable = batch.state() == BatchState.APPROVED || batch.state() == BatchState.FILED;
        Map<ClaimId, Order> listed = orders.of(id);
        Set<ClaimId> paid = payments.claims(id);
        List<Claim> claims = claimRows.of(id);
        List<Claim> waiting = listable
                ? claims.stream().filter(claim -> !paid.contains(claim.id())).toList()
                : List.of();
        Map<ClaimId, String> behind = lists.behind(id, waiting, obstacles.of(id));
        List<Money> ready = waiting.stream()
                .filter(claim -> !behind.containsKey(claim.id()))
                .map(Claim::amount)
                .toList();
        Money fees = listed.values().stream()
                .map(Order::confirmed)
                .filter(Objects::nonNull)
                .map(Confirmation::fee)
                .reduce(Money.zero(account.currency()), Money::plus);
        Map<ClaimId, String> masks = claimRows.maskedBanks(id);
        return new WiresView(
                account.name(),
                account.currency().getCurrencyCode(),
                account.way(batch.way()).name(),
                listable,
                ready.size(),
                Money.sum(ready, account.currency()).toString(),
                fees.isZero() ? "" : fees.toString(),
                claims.stream()
                        .map(claim -> line(
                                claim,
                                listed.get(claim.id()),
                                masks.getOrDefault(claim.id(), ""),
                                behind.getOrDefault(claim.id(), "")))
                        .toList());
    }

    private static WiresView.WireLine line(Claim claim, @Nullable Order order, String mask, String kept) {
        Confirmation said = order == null ? null : order.confirmed();
        return new WiresView.WireLine(
                claim.id().value(),
                order == null ? null : order.payment().value(),
                order == null ? "" : order.called(),
                claim.remitTo().payee(),
                mask,
                claim.amount().toString(),
                step(order, kept),
                kept,
                said == null ? "" : said.bankReference(),
                said == null || said.fee().isZero() ? "" : said.fee().toString(),
                order == null ? null : order.listedOn(),
                said == null ? null : said.sentOn(),
                order == null ? "" : order.confirmedBy());
    }

    private static Step step(@Nullable Order order, String kept) {
        if (order == null) {
            return kept.isEmpty() ? Step.WAITS : Step.KEPT_BACK;
        }
        if (order.posted()) {
            return order.state().isInTheLedger() ? Step.POSTED : Step.UNDONE;
        }
        return order.confirmed() == null ? Step.LISTED : Step.CONFIRMED;
    }

    /** What is typed at the bank's site for one wire, its account number whole; that it was opened is recorded. */
    @Transactional
    List<WireField> open(Actor by, PaymentId id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        Order order = orders.of(id)
                .orElseThrow(() -> Refusal.notFound("no-wire", "This wire stands on no list any more. Look again."));
        Batch batch = batches.get(order.batch());
        audit.record(by, "open a wire", "payment " + id.value(), Map.of("wire", order.called()));
        return fields(batch, claim(order), order);
    }

    private Claim claim(Order order) {
        return claimRows.of(order.batch()).stream()
                .filter(claim -> claim.id().equals(order.claim()))
                .findFirst()
                .orElseThrow();
    }

    private List<WireField> fields(Batch batch, Claim claim, Order order) {
        BankDetails bank = bank(batch.id(), claim);
        List<WireField> fields = new ArrayList<>();
        fields.add(new WireField("Payee", claim.remitTo().payee()));
        fields.add(new WireField("Address", String.join(", ", claim.remitTo().lines())));
        if (bank.kind() == BankDetails.Kind.IBAN) {
            fields.add(new WireField("IBAN", bank.account()));
            if (!bank.bic().isEmpty()) {
                fields.add(new WireField("BIC", bank.bic()));
            }
        } else {
            fields.add(new WireField("Routing number", bank.routing()));
            fields.add(new WireField(bank.savings() ? "Savings account" : "Account", bank.account()));
        }
        fields.add(new WireField("Amount", claim.amount().plain()));
        fields.add(new WireField("Currency", claim.amount().currency().getCurrencyCode()));
        fields.add(new WireField("Day", batch.checkDate().toString()));
        fields.add(new WireField("Our reference", order.called()));
        String purpose =
                claim.lines().stream().map(ClaimLine::reference).distinct().collect(Collectors.joining(" "));
        fields.add(new WireField("What it is for", purpose.substring(0, Math.min(LONGEST_PURPOSE, purpose.length()))));
        return fields;
    }

    private BankDetails bank(BatchId batch, Claim claim) {
        return BankDetails.of(
                seal.open(Objects.requireNonNull(claimRows.sealedBanks(batch).get(claim.id()))));
    }

    /** The wires that wait to be ordered, as a list to print; that it was taken is recorded. */
    @Transactional
    byte[] list(Actor by, BatchId id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        Batch batch = batches.get(id);
        Map<ClaimId, Order> listed = orders.of(id);
        List<Report.Line> lines = new ArrayList<>();
        List<Money> amounts = new ArrayList<>();
        for (Claim claim : claimRows.of(id)) {
            Order order = listed.get(claim.id());
            if (order == null || order.confirmed() != null) {
                continue;
            }
            lines.add(Report.Line.group(
                    order.called() + ", " + claim.remitTo().payee(),
                    claim.amount() + " " + claim.amount().currency().getCurrencyCode()));
            fields(batch, claim, order).forEach(field -> lines.add(Report.Line.row(field.label(), field.value(), "")));
            lines.add(Report.Line.row("The bank's reference, fee, day", "", ""));
            amounts.add(claim.amount());
        }
        if (amounts.isEmpty()) {
            throw Refusal.conflict("nothing-to-order", "No wire of this batch waits to be ordered.");
        }
        Money total = Money.sum(amounts, amounts.get(0).currency());
        lines.add(Report.Line.total("together", amounts.size() + " wires, " + total, ""));
        audit.record(by, "print wires", "batch " + id.value(), Map.of("wires", amounts.size()));
        Report report = new Report(
                "Wires to order, " + batch.name(),
                List.of("from " + accounts.get(batch.account()).name() + ", " + Dates.inWords(batch.checkDate())
                        + "; it holds whole account numbers: destroy it once the wires are ordered"),
                List.of(new Report.Head("", 24, false), new Report.Head("", 56, false), new Report.Head("", 20, true)),
                lines);
        return files.drawn(report, Dates.inWords(by.today()) + ", by " + by.name());
    }
}
