package leveltally.server.setup;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.setup.Setup;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** How far the company is set up. */
@RestController
@RequestMapping("/api/setup")
@Needs(Deed.READ)
class SetupController {
    private final Progress progress;

    SetupController(Progress progress) {
        this.progress = progress;
    }

    /** @param ready whether nothing holds up the first check any more */
    record SetupView(boolean ready, List<SetupStepView> steps) {}

    /**
     * One step.
     *
     * @param missing what is to be done; empty when it is done
     * @param unlocks what can be done once it is
     * @param doneBy the roles that do it, in words; {@code mine} whether the reader holds one
     * @param address the page it is done on
     */
    record SetupStepView(
            String step,
            String title,
            boolean done,
            boolean optional,
            String missing,
            String unlocks,
            String doneBy,
            boolean mine,
            String address) {}

    @GetMapping
    SetupView setup(Actor by) {
        by.mayDo(Deed.READ);
        List<Setup.Step> steps = progress.of(by.today());
        return new SetupView(
                steps.stream().noneMatch(Setup.Step::holdsUp),
                steps.stream().map(step -> view(step, by)).toList());
    }

    private static SetupStepView view(Setup.Step of, Actor by) {
        var step = of.step();
        return new SetupStepView(
                step.name(),
                step.title(),
                of.isDone(),
                step.isOptional(),
                of.missing().orElse(""),
                step.unlocks(),
                step.doneBy().stream()
                        .sorted()
                        .map(role -> role.name().toLowerCase(Locale.ROOT))
                        .collect(Collectors.joining(" or ")),
                by.roles().stream().anyMatch(step.doneBy()::contains),
                step.address());
    }
}
