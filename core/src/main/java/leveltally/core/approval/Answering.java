package leveltally.core.approval;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.TwoPeople;

/**
 * Who may answer a step (law L7): nobody approves what they prepared or changed (entering, bringing in or releasing an
 * invoice of it included), nor two steps of one route, nor a payment
 * to a vendor whose data they changed lately; and a deputy acts under the same separations, their own and those of whom
 * they stand in for.
 *
 * @param hands everyone who prepared or changed the batch
 * @param approvers everyone whose approval counts in this round
 * @param interested who proposed or confirmed a recent change of a vendor paid here, with that vendor's name
 */
public record Answering(
        Step step, boolean escalated, Set<PersonId> hands, Set<PersonId> approvers, Map<PersonId, String> interested) {

    /**
     * @param standsInFor whom this person stands in for today
     * @return whose approval it would be: the person's own before any other's
     * @throws Refusal saying why this person may not approve
     */
    public Approver approve(Approver person, List<Approver> standsInFor) {
        whyNotApprove(person, standsInFor).ifPresent(no -> {
            throw no;
        });
        return mayApprove(person, standsInFor).orElseThrow();
    }

    /** Why this person may not approve; empty when they may. */
    public Optional<Refusal> whyNotApprove(Approver person, List<Approver> standsInFor) {
        if (hands.contains(person.id())) {
            return Optional.of(ownWork());
        }
        if (approvers.contains(person.id())) {
            return Optional.of(Refusal.notAllowed(
                    "second-step", "You answered for this batch already, so somebody else must take this step."));
        }
        String vendor = interested.get(person.id());
        if (vendor != null) {
            return Optional.of(Refusal.notAllowed(
                    "own-vendor-change",
                    "You proposed or confirmed a change of " + vendor + " in the last "
                            + TwoPeople.DAYS
                            + " days, so somebody else must approve a payment to it. Strike that payment, or leave the "
                            + "batch to others."));
        }
        return whyNotAsked(person, standsInFor);
    }

    /** Whether this person could approve now: what waits for them, and who is told. */
    public Optional<Approver> mayApprove(Approver person, List<Approver> standsInFor) {
        return Stream.concat(Stream.of(person), standsInFor.stream())
                .filter(one -> isFree(person) && isFree(one) && step.asks(one, escalated) && person.mayApprove())
                .findFirst();
    }

    /**
     * The same for striking a payment or sending the batch back. Whoever changed a vendor may do that, and whoever approved
     * an earlier step may think better of it: neither lets a payment out.
     */
    public Approver decline(Approver person, List<Approver> standsInFor) {
        whyNotDecline(person, standsInFor).ifPresent(no -> {
            throw no;
        });
        return approvers.contains(person.id())
                ? person
                : withoutInterests().mayApprove(person, standsInFor).orElseThrow();
    }

    /** Why this person may neither strike nor send back; empty when they may. */
    public Optional<Refusal> whyNotDecline(Approver person, List<Approver> standsInFor) {
        if (hands.contains(person.id())) {
            return Optional.of(ownWork());
        }
        return approvers.contains(person.id())
                ? Optional.empty()
                : withoutInterests().whyNotAsked(person, standsInFor);
    }

    private Answering withoutInterests() {
        return new Answering(step, escalated, hands, approvers, Map.of());
    }

    private Optional<Refusal> whyNotAsked(Approver person, List<Approver> standsInFor) {
        return mayApprove(person, standsInFor).isPresent()
                ? Optional.empty()
                : Optional.of(Refusal.notAllowed(
                        "not-asked",
                        "The step “" + step.name()
                                + "” waits for others, not for you. See on the batch who is asked."));
    }

    private static Refusal ownWork() {
        return Refusal.notAllowed(
                "own-work",
                "You prepared or changed this batch, or entered, brought in or released an invoice of it, so somebody "
                        + "else must approve it.");
    }

    private boolean isFree(Approver person) {
        return !hands.contains(person.id()) && !approvers.contains(person.id()) && !interested.containsKey(person.id());
    }
}
