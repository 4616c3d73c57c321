package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.Settled;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reportable;
import leveltally.core.voiding.Effect;
import leveltally.core.voiding.Outcome;
import leveltally.core.voiding.PaidAhead;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.batches.Reissues;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.company.Companies;
import leveltally.server.contacts.Unclaimed;
import leveltally.server.electronic.ElectronicItems;
import leveltally.server.invoices.Prepayments;
import leveltally.server.invoices.Settlements;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.Ledger;
import leveltally.server.outside.CardStatements;
import leveltally.server.outside.OutsideNumbers;
import leveltally.server.payments.Called;
import leveltally.server.payments.Payment;
import leveltally.server.wires.WireOrders;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Looks at payments before they are undone: a plan and its effect for each, whatever their number in as many statements. */
@Component
class UndoLook {
    private final Checks checks;
    private final Ledger ledger;
    private final Accounts accounts;
    private final Settlements settlements;
    private final Companies companies;
    private final UndoneItems items;
    private final Reissues reissues;
    private final OutsideNumbers numbers;
    private final ElectronicItems electronic;
    private final WireOrders wires;
    private final CardStatements statements;
    private final Unclaimed unclaimed;
    private final Prepayments prepayments;

    UndoLook(
            Checks checks,
            Ledger ledger,
            Accounts accounts,
            Settlements settlements,
            Companies companies,
            UndoneItems items,
            Reissues reissues,
            OutsideNumbers numbers,
            ElectronicItems electronic,
            WireOrders wires,
            CardStatements statements,
            Unclaimed unclaimed,
            Prepayments prepayments) {
        this.prepayments = prepayments;
        this.unclaimed = unclaimed;
        this.numbers = numbers;
        this.electronic = electronic;
        this.wires = wires;
        this.statements = statements;
        this.checks = checks;
        this.ledger = ledger;
        this.accounts = accounts;
        this.settlements = settlements;
        this.companies = companies;
        this.items = items;
        this.reissues = reissues;
    }

    /** Everything that was read for all of them. */
    private record Read(
            Map<PaymentId, Check> checks,
            Map<PaymentId, Called> called,
            Map<PaymentId, CardStatements.On> statements,
            Map<EntryId, JournalEntry> entries,
            Map<PaymentId, List<Settled>> settled,
            Map<PaymentId, List<PaidAhead>> ahead,
            Map<InvoiceId, UndoneItems.Item> items,
            Map<InvoiceId, List<Outcome.Line>> lines,
            Map<PaymentId, Reportable> reportable,
            Map<AccountId, LedgerAccount> accounts,
            Map<ClaimId, String> replacing,
            Map<PaymentId, AccountId> cash,
            Map<PaymentId, Unclaimed.Ready> unclaimed,
            int graceDays) {}

    /**
     * @param payments those that are wanted, in the order in which they are
     * @param reason of the deed; empty while none is typed yet
     */
    List<Looked> look(Wanted wanted, List<Payment> payments, String reason, LocalDate today) {
        Set<ClaimId> claims = payments.stream().map(Payment::claim).collect(Collectors.toSet());
        return look(wanted, payments, reason, today, reissues.replacing(claims));
    }

    /** The same for payments that are voided by the posting of what replaces them. */
    List<Looked> lookReplaced(Wanted wanted, List<Payment> payments, String reason, LocalDate today) {
        return look(wanted, payments, reason, today, Map.of());
    }

    private List<Looked> look(
            Wanted wanted, List<Payment> payments, String reason, LocalDate today, Map<ClaimId, String> replacing) {
        Read read = read(wanted, payments, replacing);
        Map<Long, Wanted.One> asked = wanted.payments().stream().collect(Collectors.toMap(Wanted.One::payment, o -> o));
        return payments.stream()
                .map(payment -> look(payment, asked.get(payment.id().value()), wanted, read, reason, today))
                .toList();
    }

    private Read read(Wanted wanted, List<Payment> payments, Map<ClaimId, String> replacing) {
        Set<PaymentId> ids = payments.stream().map(Payment::id).collect(Collectors.toSet());
        Map<PaymentId, List<Settled>> settled = settlements.settledBy(ids);
        Map<PaymentId, List<PaidAhead>> ahead = prepayments.of(ids);
        Set<InvoiceId> invoices = Stream.concat(
                        settled.values().stream().flatMap(Collection::stream),
                        ahead.values().stream().flatMap(Collection::stream).flatMap(PaidAhead::settled))
                .map(Settled::item)
                .collect(Collectors.toSet());
        boolean cancels = wanted.others().isCancelled()
                || wanted.payments().stream()
                        .flatMap(one -> one.invoices().stream())
                        .anyMatch(single -> single.fate().isCancelled());
        boolean unclaims = wanted.others().how() == Wanted.How.UNCLAIMED;
        return new Read(
                checks.carrying(ids),
                called(ids),
                statements.of(ids),
                ledger.entries(payments.stream()
                        .map(Payment::postedEntry)
                        .filter(entry -> entry != null)
                        .toList()),
                settled,
                ahead,
                items.of(invoices),
                cancels ? items.lines(invoices) : Map.of(),
                items.reportable(ids),
                cancels
                        ? accounts.all().stream().collect(Collectors.toMap(LedgerAccount::id, account -> account))
                        : Map.of(),
                replacing,
                unclaims ? items.cash(ids) : Map.of(),
                unclaims ? unclaimed.of(ids) : Map.of(),
                companies.company().graceDays());
    }

    /** Whatever is no check. */
    private Map<PaymentId, Called> called(Set<PaymentId> ids) {
        Map<PaymentId, Called> called = new HashMap<>(numbers.called(ids));
        called.putAll(electronic.called(ids));
        called.putAll(wires.called(List.copyOf(ids)));
        return called;
    }

    private Looked look(Payment payment, Wanted.One asked, Wanted wanted, Read read, String reason, LocalDate today) {
        Check check = read.checks().get(payment.id());
        Called called = read.called().get(payment.id());
        String name =
                check != null ? check.name() : called == null ? "The payment to " + payment.payee() : called.name();
        PaymentMethod carried = called == null ? null : called.method();
        CardStatements.On statement = read.statements().get(payment.id());
        LocalDate wish = wanted.on();
        LocalDate on = wish == null ? payment.ledgerDate() : wish;
        EntryId posted = payment.postedEntry();
        JournalEntry entry = posted == null ? null : read.entries().get(posted);
        try {
            if (entry == null) {
                throw Refusal.conflict("not-posted", name + " is not posted, so there is nothing to undo.");
            }
            String batch = read.replacing().get(payment.claim());
            if (batch != null) {
                throw Refusal.conflict(
                        "being-reissued",
                        name + " is being paid once more in the batch “" + batch + "”. Withdraw that first.");
            }
            if (statement != null && statement.settled()) {
                throw Refusal.conflict(
                        "statement-settled",
                        name + " stands on the issuer's statement " + statement.reference()
                                + ", of which something is paid. Have the issuer credit it, and enter the credit.");
            }
            List<Settled> settled = read.settled().getOrDefault(payment.id(), List.of());
            List<PaidAhead> ahead = read.ahead().getOrDefault(payment.id(), List.of());
            UndoPlan.Posted standing = new UndoPlan.Posted(name, check != null, payment.state(), entry, settled, ahead);
            UndoPlan plan = wanted.others().how() == Wanted.How.UNCLAIMED
                    ? handingOver(payment.id(), standing, wanted.others(), read, on, today)
                    : UndoPlan.of(standing, outcomes(asked, wanted.others(), settled, read, reason, on), on, today);
            Map<InvoiceId, Effect.Before> before = new HashMap<>();
            Stream.concat(settled.stream(), ahead.stream().flatMap(PaidAhead::settled))
                    .forEach(row ->
                            before.put(row.item(), read.items().get(row.item()).before()));
            mustBeFree(plan, read.items());
            Effect.OnYear year =
                    Effect.year(read.reportable().getOrDefault(payment.id(), Reportable.NO), payment.checkDate(), on);
            Effect effect = Effect.of(plan, before, today, read.graceDays(), year);
            return new Looked(payment, asked, name, check, carried, statement, on, entry, plan, effect, null);
        } catch (Refusal refused) {
            return new Looked(payment, asked, name, check, carried, statement, on, entry, null, null, refused);
        }
    }

    private static UndoPlan handingOver(
            PaymentId id, UndoPlan.Posted standing, Wanted.Fate fate, Read read, LocalDate on, LocalDate today) {
        Unclaimed.Ready ready = read.unclaimed().get(id);
        if (!standing.paper() || ready == null) {
            throw Refusal.conflict(
                    "unclaimed-checks-only",
                    "Only a check can be handed over as unclaimed, and " + standing.name() + " is none.");
        }
        ready.mustBe(standing.name(), on);
        LedgerAccount account = account(read, fate.account());
        if (account.facts().kind() != AccountKind.LIABILITY) {
            throw Refusal.invalidField(
                    "unclaimed-account",
                    "account",
                    account.inWords()
                            + " is no account of the kind “other liability”. Choose the one of what is owed to the state.");
        }
        account.mustTake(on);
        return UndoPlan.handingOver(standing, read.cash().get(id), account.id(), on, today);
    }

    /** What is cancelled while another batch is about to pay the rest of it would take that from under it (law L9). */
    private static void mustBeFree(UndoPlan plan, Map<InvoiceId, UndoneItems.Item> items) {
        for (InvoiceId id : plan.cancelled().keySet()) {
            UndoneItems.Item item = items.get(id);
            if (item.batch() != null) {
                throw Refusal.conflict(
                        "in-another-batch",
                        item.before().reference() + " stands in the batch “" + item.batch()
                                + "”, so nothing of it is cancelled now. Take it out there first, or bring it back.");
            }
        }
    }

    private static Map<InvoiceId, Outcome> outcomes(
            Wanted.One asked, Wanted.Fate others, List<Settled> settled, Read read, String reason, LocalDate on) {
        Map<Long, Wanted.Fate> named = asked.invoices().stream()
                .collect(Collectors.toMap(Wanted.Single::invoice, Wanted.Single::fate, (first, again) -> again));
        Map<InvoiceId, Outcome> outcomes = new HashMap<>();
        // what is named is looked at whether it was settled or not: the plan refuses what was not
        named.forEach((id, fate) -> outcome(new InvoiceId(id), fate, read, reason, on, outcomes));
        Set<InvoiceId> rest = new TreeSet<>(java.util.Comparator.comparing(InvoiceId::value));
        settled.stream().filter(row -> row.of().raises()).map(Settled::item).forEach(rest::add);
        rest.stream()
                .filter(id -> !named.containsKey(id.value()))
                .forEach(id -> outcome(id, others, read, reason, on, outcomes));
        return outcomes;
    }

    private static void outcome(
            InvoiceId id, Wanted.Fate fate, Read read, String reason, LocalDate on, Map<InvoiceId, Outcome> outcomes) {
        UndoneItems.Item item = read.items().get(id);
        if (item == null) {
            outcomes.put(id, new Outcome.BringBack());
            return;
        }
        outcomes.put(
                id,
                switch (fate.how()) {
                    case OPEN -> new Outcome.BringBack();
                    case HELD -> new Outcome.BringBackHeld(heldFor(fate.why(), reason));
                    case OWN_LINES -> new Outcome.Cancel(item.payables(), ownLines(id, item, read, on));
                    case ONE_ACCOUNT ->
                        new Outcome.Cancel(
                                item.payables(),
                                List.of(new Outcome.Line(
                                        taking(read, fate.account(), on),
                                        Money.ofMinor(1, item.before().amount().currency()))));
                    case UNCLAIMED ->
                        throw Refusal.invalid(
                                "unclaimed-whole",
                                "A check is handed over as unclaimed whole, not invoice by invoice.");
                });
    }

    private static String heldFor(@Nullable String why, String reason) {
        String held = why == null || why.isBlank() ? reason : why;
        return held.isBlank() ? "its payment was undone" : held.strip();
    }

    private static List<Outcome.Line> ownLines(InvoiceId id, UndoneItems.Item item, Read read, LocalDate on) {
        List<Outcome.Line> lines = read.lines().getOrDefault(id, List.of());
        if (lines.isEmpty()) {
            throw Refusal.conflict(
                    "no-lines",
                    item.before().reference()
                            + " came here without account lines. Choose one account to cancel it against.");
        }
        lines.forEach(line -> read.accounts().get(line.account()).mustTake(on));
        return lines;
    }

    private static LedgerAccount account(Read read, @Nullable Long wanted) {
        LedgerAccount account = wanted == null ? null : read.accounts().get(new AccountId(wanted));
        if (account == null) {
            throw Refusal.invalidField("account-missing", "account", "Choose the account that takes it.");
        }
        return account;
    }

    private static AccountId taking(Read read, @Nullable Long wanted, LocalDate on) {
        LedgerAccount account = account(read, wanted);
        AccountKind kind = account.facts().kind();
        if (kind == AccountKind.CASH || kind == AccountKind.PAYABLES) {
            throw Refusal.invalidField(
                    "account-kind",
                    "account",
                    account.inWords() + " is an account of " + (kind == AccountKind.CASH ? "cash" : "what is owed")
                            + ", so nothing is cancelled against it. Choose one of income or expense.");
        }
        account.mustTake(on);
        return account.id();
    }
}
