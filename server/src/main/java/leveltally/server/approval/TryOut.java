package leveltally.server.approval;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.approval.Completion;
import leveltally.core.approval.Policy;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.ledger.BankAccounts;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Which route a batch, or made-up figures, would take under routes that are only thought of. */
@Component
class TryOut {
    private final Choosing choosing;
    private final RouteViews views;
    private final Deputies deputies;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final BankAccounts accounts;

    TryOut(
            Choosing choosing,
            RouteViews views,
            Deputies deputies,
            Batches batches,
            ClaimRows claimRows,
            BankAccounts accounts) {
        this.choosing = choosing;
        this.views = views;
        this.deputies = deputies;
        this.batches = batches;
        this.claimRows = claimRows;
        this.accounts = accounts;
    }

    @Transactional(readOnly = true)
    TriedRoutes of(Actor by, TryRoutes wanted) {
        by.mayDo(Deed.SET_ROUTES);
        Policies.InForce policy = new Policies.InForce(null, wanted.content().policy());
        Roster roster = deputies.roster(by.today());
        Long id = wanted.batch();
        Chosen chosen;
        String name;
        if (id != null) {
            Batch batch = batches.get(new BatchId(id));
            chosen = choosing.choose(by, batch, claimRows.of(batch.id()), policy);
            name = "“" + batch.name() + "”";
        } else {
            Policy.Asking asking = typed(wanted);
            Policy.Choice choice = policy.policy().choose(asking);
            chosen = new Chosen(
                    policy,
                    asking,
                    choice,
                    java.util.Map.of(),
                    Completion.shortOf(choice.route().steps(), roster.people().values(), Set.of()));
            name = "A batch";
        }
        return new TriedRoutes(name + " " + words(chosen.asking()), views.preview(chosen, roster));
    }

    private Policy.Asking typed(TryRoutes wanted) {
        Long id = wanted.account();
        if (id == null) {
            throw leveltally.core.Refusal.invalidField(
                    "no-account", "account", "Choose a batch, or a bank account and amounts.");
        }
        var currency = accounts.get(new BankAccountId(id)).currency();
        Money total = Money.typed(wanted.total() == null ? "0" : wanted.total(), currency, "total");
        Money largest = Money.typed(wanted.largest() == null ? "0" : wanted.largest(), currency, "largest");
        List<MarkKind> marks = wanted.marks();
        return new Policy.Asking(
                new BankAccountId(id), total.max(largest), largest, marks == null ? Set.of() : new HashSet<>(marks));
    }

    private String words(Policy.Asking asking) {
        String marks = String.join(
                ", ", asking.marks().stream().sorted().map(MarkKind::words).toList());
        return "on " + accounts.get(asking.account()).name() + ", total " + asking.total() + " "
                + asking.total().currency() + ", largest payment " + asking.largest()
                + (marks.isEmpty() ? ", nothing marked" : ", marked: " + marks);
    }
}
