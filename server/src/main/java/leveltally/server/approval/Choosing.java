package leveltally.server.approval;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.approval.Completion;
import leveltally.core.approval.Policy;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.marks.Mark;
import leveltally.core.marks.MarkKind;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.marks.MarkRows;
import org.springframework.stereotype.Component;

/** Which route a batch takes, by what it pays and what of it is marked. */
@Component
class Choosing {
    private final Batches batches;
    private final Policies policies;
    private final Rounds rounds;
    private final Deputies deputies;
    private final MarkRows marks;
    private final BankAccounts accounts;

    Choosing(
            Batches batches,
            Policies policies,
            Rounds rounds,
            Deputies deputies,
            MarkRows marks,
            BankAccounts accounts) {
        this.batches = batches;
        this.policies = policies;
        this.rounds = rounds;
        this.deputies = deputies;
        this.marks = marks;
        this.accounts = accounts;
    }

    /** Which route a batch would take today, and why. */
    Chosen choose(Actor by, Batch batch, List<Claim> claims) {
        return choose(by, batch, claims, policies.on(by.today()));
    }

    Chosen choose(Actor by, Batch batch, List<Claim> claims, Policies.InForce policy) {
        var currency = accounts.get(batch.account()).currency();
        Map<ClaimId, List<Mark>> found =
                marks.of(batch.id(), by.today(), policy.policy().paymentLimits(currency));
        Set<MarkKind> kinds = new HashSet<>();
        found.values().forEach(own -> own.forEach(mark -> kinds.add(mark.kind())));
        Policy.Asking asking = Policy.Asking.of(batch.account(), currency, claims, kinds);
        Policy.Choice choice = policy.policy().choose(asking);
        Set<PersonId> excluded = new HashSet<>(batches.hands(batch.id()));
        excluded.addAll(rounds.interested(List.of(batch.id().value()), by.today())
                .getOrDefault(batch.id().value(), Map.of())
                .keySet());
        String shortOf = Completion.shortOf(
                choice.route().steps(), deputies.roster(by.today()).people().values(), excluded);
        return new Chosen(policy, asking, choice, found, shortOf);
    }
}
