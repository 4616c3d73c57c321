package leveltally.server.approval;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import leveltally.core.approval.Progress;
import leveltally.core.approval.Step;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The route of a batch: the one it was sent on, or the one it would take. */
@Component
class RouteViews {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Rounds rounds;
    private final Deputies deputies;
    private final Choosing choosing;

    RouteViews(Batches batches, ClaimRows claimRows, Rounds rounds, Deputies deputies, Choosing choosing) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.rounds = rounds;
        this.deputies = deputies;
        this.choosing = choosing;
    }

    @Transactional(readOnly = true)
    RouteView of(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        Roster roster = deputies.roster(by.today());
        if (batch.state() != BatchState.DRAFT) {
            List<Round> round = rounds.of(List.of(id), by.today());
            if (!round.isEmpty()) {
                return of(round.get(0), roster, batch.state() == BatchState.IN_APPROVAL);
            }
        }
        return preview(choosing.choose(by, batch, claimRows.of(id)), roster);
    }

    RouteView preview(Chosen chosen, Roster roster) {
        return new RouteView(
                chosen.choice().route().name(),
                chosen.choice().why(),
                false,
                chosen.choice().route().steps().stream()
                        .map(step -> new RouteView.RouteStepView(
                                step.name(),
                                who(step, roster),
                                step.needed(),
                                List.of(),
                                "LATER",
                                null,
                                null,
                                null,
                                List.of(),
                                names(step.secondLine(), roster)))
                        .toList(),
                considered(chosen.choice()),
                chosen.shortOf(),
                Instant.now());
    }

    static List<RouteView.ConsideredView> considered(leveltally.core.approval.Policy.Choice choice) {
        return choice.considered().stream()
                .map(one -> new RouteView.ConsideredView(one.route(), one.asked(), one.why()))
                .toList();
    }

    static RouteView of(Round round, Roster roster, boolean waits) {
        List<RouteView.RouteStepView> steps = new ArrayList<>();
        Progress progress = round.progress();
        for (int number = 1; number <= round.opened().size(); number++) {
            Round.Opened opened = round.opened().get(number - 1);
            boolean now = waits && number == progress.current();
            int step = number;
            steps.add(new RouteView.RouteStepView(
                    opened.step().name(),
                    who(opened.step(), roster),
                    opened.step().needed(),
                    round.given().stream()
                            .filter(one -> one.step() == step)
                            .map(one -> new RouteView.GivenView(
                                    roster.name(one.by()),
                                    one.by().equals(one.of()) ? null : roster.name(one.of()),
                                    one.at()))
                            .toList(),
                    progress.missing(number) == 0 ? "DONE" : now ? "NOW" : "LATER",
                    opened.openedAt(),
                    opened.remindedAt(),
                    opened.escalatedAt(),
                    now ? names(roster.asked(round.answering()), roster) : List.of(),
                    names(opened.step().secondLine(), roster)));
        }
        return new RouteView(round.route(), round.why(), true, steps, List.of(), "", Instant.now());
    }

    /** Such as {@code 2 approvers} or {@code Maren Lindqvist or Ruth Castellane}. */
    private static String who(Step step, Roster roster) {
        Role role = step.takers().role();
        if (role != null) {
            return step.needed() + " " + RouteWords.role(role) + (step.needed() == 1 ? "" : "s");
        }
        List<String> names = names(step.takers().people(), roster);
        return step.needed() == names.size()
                ? String.join(" and ", names)
                : (step.needed() == 1 ? "" : step.needed() + " of ") + String.join(" or ", names);
    }

    static List<String> names(Set<PersonId> people, Roster roster) {
        return people.stream().map(roster::name).sorted().toList();
    }
}
