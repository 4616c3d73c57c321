package leveltally.server.approval;

import java.util.List;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.approval.Answering;
import leveltally.core.approval.Approver;
import leveltally.core.people.Actor;
import org.jspecify.annotations.Nullable;

/** Whether and for whom somebody may answer, or the sentence that says why not. */
record May(boolean approve, boolean decline, @Nullable String onBehalfOf, String whyNot) {
    static May of(Actor by, Round round, Roster roster) {
        Approver person = roster.of(by);
        List<Approver> standsInFor = roster.standsInFor(by.person());
        Answering answering = round.answering();
        boolean decline = answering.whyNotDecline(person, standsInFor).isEmpty();
        Optional<Refusal> no = answering.whyNotApprove(person, standsInFor);
        if (no.isPresent()) {
            return new May(false, decline, null, no.get().sentence());
        }
        Approver of = answering.approve(person, standsInFor);
        return new May(true, decline, of.id().equals(by.person()) ? null : of.name(), "");
    }
}
