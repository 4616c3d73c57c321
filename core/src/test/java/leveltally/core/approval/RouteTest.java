package leveltally.core.approval;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import org.junit.jupiter.api.Test;

/** The way through a route: who may answer, and that it takes as many people as it names. */
class RouteTest {
    private static final Approver INES = person(1, "Ines", Role.CLERK);
    private static final Approver MAREN = person(3, "Maren", Role.APPROVER);
    private static final Approver ALDO = person(4, "Aldo", Role.APPROVER);
    private static final Approver RUTH = person(5, "Ruth", Role.CONTROLLER);
    private static final Approver BOTH = person(6, "Both", Role.CLERK, Role.APPROVER);
    private static final Step FIRST = Step.of("First look", Takers.of(Role.APPROVER), 1);
    private static final Step RUTHS = Step.of("Ruth", Takers.named(Set.of(RUTH.id())), 1);

    private static Approver person(long id, String name, Role... roles) {
        return new Approver(new PersonId(id), name, Set.of(roles));
    }

    private static Answering at(Step step) {
        return new Answering(step, false, Set.of(INES.id(), BOTH.id()), Set.of(), Map.of());
    }

    private static void rejects(String code, Runnable deed) {
        assertThatThrownBy(deed::run)
                .isInstanceOfSatisfying(
                        Refusal.class, refused -> assertThat(refused.code()).isEqualTo(code));
    }

    @Test
    void onlyWhoIsAskedMayAnswer() {
        assertThat(at(FIRST).approve(MAREN, List.of())).isEqualTo(MAREN);
        rejects("not-asked", () -> at(FIRST).approve(RUTH, List.of()));
        rejects("not-asked", () -> at(RUTHS).approve(MAREN, List.of()));
        assertThat(at(RUTHS).approve(RUTH, List.of())).isEqualTo(RUTH);
    }

    @Test
    void rejectsOwnWorkASecondStepAndARecentVendorChange() {
        rejects("own-work", () -> at(FIRST).approve(BOTH, List.of()));
        Answering second = new Answering(FIRST, false, Set.of(), Set.of(MAREN.id()), Map.of());
        rejects("second-step", () -> second.approve(MAREN, List.of()));
        assertThat(second.decline(MAREN, List.of()))
                .as("may think better of it")
                .isEqualTo(MAREN);
        rejects("own-work", () -> at(FIRST).decline(BOTH, List.of()));
        rejects("not-asked", () -> second.decline(RUTH, List.of()));
        Answering changed = new Answering(FIRST, false, Set.of(), Set.of(), Map.of(ALDO.id(), "Bollard Foundry"));
        rejects("own-vendor-change", () -> changed.approve(ALDO, List.of()));
        assertThat(changed.decline(ALDO, List.of())).as("may strike it").isEqualTo(ALDO);
        assertThat(changed.mayApprove(ALDO, List.of())).isEmpty();
    }

    @Test
    void aDeputyActsUnderTheSameSeparations() {
        assertThat(at(RUTHS).approve(ALDO, List.of(RUTH))).isEqualTo(RUTH);
        assertThat(at(FIRST).approve(ALDO, List.of(RUTH))).as("their own first").isEqualTo(ALDO);
        Answering ruthPrepared = new Answering(RUTHS, false, Set.of(RUTH.id()), Set.of(), Map.of());
        rejects("not-asked", () -> ruthPrepared.approve(ALDO, List.of(RUTH)));
        Answering ruthGave = new Answering(RUTHS, false, Set.of(), Set.of(RUTH.id()), Map.of());
        rejects("not-asked", () -> ruthGave.approve(ALDO, List.of(RUTH)));
        Answering aldoGave = new Answering(RUTHS, false, Set.of(), Set.of(ALDO.id()), Map.of());
        rejects("second-step", () -> aldoGave.approve(ALDO, List.of(RUTH)));
        Answering ruthChanged = new Answering(RUTHS, false, Set.of(), Set.of(), Map.of(RUTH.id(), "Bollard"));
        rejects("not-asked", () -> ruthChanged.approve(ALDO, List.of(RUTH)));
        rejects("not-asked", () -> at(RUTHS).approve(INES.roles().isEmpty() ? INES : person(9, "N"), List.of(RUTH)));
    }

    @Test
    void theSecondLineMayAnswerOnceItWasAsked() {
        Step step = new Step("Ruth", Takers.named(Set.of(RUTH.id())), 1, 4, 8, Set.of(MAREN.id()));
        rejects("not-asked", () -> new Answering(step, false, Set.of(), Set.of(), Map.of()).approve(MAREN, List.of()));
        assertThat(new Answering(step, true, Set.of(), Set.of(), Map.of()).approve(MAREN, List.of()))
                .isEqualTo(MAREN);
    }

    @Test
    void stepsComeInOrder() {
        Step two = Step.of("Two of them", Takers.of(Role.APPROVER), 2);
        List<Step> steps = List.of(FIRST, two);
        assertThat(new Progress(steps, List.of()).current()).isOne();
        Progress one = new Progress(steps, List.of(new Progress.Given(1, MAREN.id(), MAREN.id())));
        assertThat(one.current()).isEqualTo(2);
        assertThat(one.missing(2)).isEqualTo(2);
        Progress deputy = new Progress(
                steps,
                List.of(
                        new Progress.Given(1, MAREN.id(), MAREN.id()),
                        new Progress.Given(2, ALDO.id(), RUTH.id()),
                        new Progress.Given(2, BOTH.id(), BOTH.id())));
        assertThat(deputy.isComplete()).isTrue();
        assertThat(deputy.approvers()).contains(RUTH.id(), ALDO.id());
    }

    @Test
    void warnsOfRoutesThatCannotBeCompleted() {
        List<Approver> people = List.of(INES, MAREN, ALDO, RUTH, BOTH);
        Policy fine = policy(FIRST, RUTHS);
        assertThat(Completion.warnings(fine, people)).isEmpty();
        Policy never = policy(RUTHS, Step.of("Ruth again", Takers.named(Set.of(RUTH.id())), 1));
        assertThat(Completion.warnings(never, people))
                .singleElement()
                .asString()
                .contains("never be completed", "Ruth again");
        Policy three = policy(Step.of("Three", Takers.of(Role.APPROVER), 3));
        assertThat(Completion.warnings(three, people))
                .singleElement()
                .asString()
                .contains("prepared by Both");
        assertThat(Completion.shortOf(three.routes().get(0).steps(), people, Set.of(ALDO.id())))
                .isEqualTo("Three");
    }

    private static Policy policy(Step... steps) {
        return new Policy(List.of(new Route("Only", Set.of(), List.of(), List.of(), Set.of(), List.of(steps))));
    }

    /** Whoever answers in whatever order: a route is complete only with as many different people as it names. */
    @Test
    void noRouteCompletesWithFewerPeopleThanItNames() {
        Random random = new Random(11);
        List<Approver> people = new ArrayList<>();
        for (int i = 1; i <= 9; i++) {
            people.add(person(i, "P" + i, random.nextBoolean() ? Role.APPROVER : Role.CONTROLLER));
        }
        int completed = 0;
        for (int run = 0; run < 2_000; run++) {
            List<Step> steps = steps(random, people);
            Set<PersonId> hands = Set.of(people.get(random.nextInt(9)).id());
            List<Progress.Given> given = new ArrayList<>();
            for (int tries = 0; tries < 40 && !new Progress(steps, given).isComplete(); tries++) {
                Progress progress = new Progress(steps, given);
                Approver person = people.get(random.nextInt(9));
                List<Approver> for_ = random.nextInt(3) == 0 ? List.of(people.get(random.nextInt(9))) : List.of();
                Step step = steps.get(progress.current() - 1);
                int at = progress.current();
                new Answering(step, false, hands, progress.approvers(), Map.of())
                        .mayApprove(person, for_)
                        .ifPresent(of -> given.add(new Progress.Given(at, person.id(), of.id())));
            }
            if (new Progress(steps, given).isComplete()) {
                completed++;
                Set<PersonId> distinct = new HashSet<>();
                given.forEach(one -> distinct.add(one.by()));
                assertThat(distinct)
                        .hasSize(steps.stream().mapToInt(Step::needed).sum());
                assertThat(distinct).doesNotContainAnyElementsOf(hands);
                assertThat(Completion.shortOf(steps, people, hands))
                        .as("found by matching, too")
                        .isEmpty();
            }
        }
        assertThat(completed).isGreaterThan(500);
    }

    private static List<Step> steps(Random random, List<Approver> people) {
        List<Step> steps = new ArrayList<>();
        int count = 1 + random.nextInt(3);
        for (int i = 0; i < count; i++) {
            boolean named = random.nextBoolean();
            Takers takers = named
                    ? Takers.named(Set.of(
                            people.get(i).id(),
                            people.get(i + 3).id(),
                            people.get(i + 6).id()))
                    : Takers.of(random.nextBoolean() ? Role.APPROVER : Role.CONTROLLER);
            steps.add(Step.of("S" + i, takers, 1 + random.nextInt(2)));
        }
        return steps;
    }

    /** The matching against trying everything out. */
    @Test
    void completionAgreesWithBruteForce() {
        Random random = new Random(12);
        for (int run = 0; run < 500; run++) {
            List<Approver> people = new ArrayList<>();
            int count = 7 + random.nextInt(3);
            for (int i = 1; i <= count; i++) {
                people.add(person(i, "P" + i, random.nextInt(3) == 0 ? Role.CONTROLLER : Role.APPROVER));
            }
            List<Step> steps = steps(random, random.nextBoolean() ? people.subList(0, 7) : people, count);
            List<Step> places = new ArrayList<>();
            steps.forEach(step -> {
                for (int i = 0; i < step.needed(); i++) {
                    places.add(step);
                }
            });
            boolean brute = assignable(places, 0, people, new HashSet<>());
            assertThat(Completion.shortOf(steps, people, Set.of()).isEmpty()).isEqualTo(brute);
        }
    }

    private static List<Step> steps(Random random, List<Approver> people, int count) {
        List<Step> steps = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            Set<PersonId> named = new HashSet<>();
            int names = 1 + random.nextInt(2);
            while (named.size() < names) {
                named.add(people.get(random.nextInt(Math.min(4, count))).id());
            }
            Takers takers = random.nextInt(3) == 0 ? Takers.of(Role.CONTROLLER) : Takers.named(named);
            steps.add(Step.of("S" + i, takers, takers.role() == null ? named.size() : 1 + random.nextInt(2)));
        }
        return steps;
    }

    private static boolean assignable(List<Step> places, int at, List<Approver> people, Set<PersonId> used) {
        if (at == places.size()) {
            return true;
        }
        for (Approver person : people) {
            if (places.get(at).asks(person, false) && used.add(person.id())) {
                if (assignable(places, at + 1, people, used)) {
                    return true;
                }
                used.remove(person.id());
            }
        }
        return false;
    }
}
