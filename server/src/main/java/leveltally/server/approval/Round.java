package leveltally.server.approval;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import leveltally.core.approval.Answering;
import leveltally.core.approval.Progress;
import leveltally.core.approval.Step;
import leveltally.core.batches.BatchId;
import leveltally.core.people.PersonId;
import org.jspecify.annotations.Nullable;

/**
 * One sending of a batch: its route as it was then, and how far it has come.
 *
 * @param number counted from 0
 * @param hands everyone who prepared or changed the batch
 * @param interested who changed a vendor paid here lately, with the vendor's name
 */
record Round(
        BatchId batch,
        int number,
        String route,
        String why,
        PersonId sentBy,
        Instant sentAt,
        List<Opened> opened,
        List<Given> given,
        Set<PersonId> hands,
        Map<PersonId, String> interested) {

    /** A step and since when it waits; the others are null until they happen. */
    record Opened(
            Step step,
            @Nullable Instant openedAt,
            @Nullable Instant remindedAt,
            @Nullable Instant escalatedAt) {}

    /** One approval: by whom, for whom, when. */
    record Given(int step, PersonId by, PersonId of, Instant at) {}

    Progress progress() {
        return new Progress(
                opened.stream().map(Opened::step).toList(),
                given.stream()
                        .map(one -> new Progress.Given(one.step(), one.by(), one.of()))
                        .toList());
    }

    /** The step that waits, counted from 1, or one more than there are. */
    int current() {
        return progress().current();
    }

    /** Empty when every step has its approvals. */
    Optional<Opened> waiting() {
        int current = current();
        return current > opened.size() ? Optional.empty() : Optional.of(opened.get(current - 1));
    }

    /** Who may answer the waiting step; the last one where none waits. */
    Answering answering() {
        Opened step = waiting().orElseGet(() -> opened.get(opened.size() - 1));
        return new Answering(
                step.step(), step.escalatedAt() != null, hands, progress().approvers(), interested);
    }
}
