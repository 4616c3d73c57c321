package leveltally.server.approval;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.marks.MarkKind;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The routes of approval: kept, checked and tried out. */
@RestController
@RequestMapping("/api/routes")
@Needs(Deed.READ)
class RouteController {
    private final Policies policies;
    private final TryOut tryOut;

    RouteController(Policies policies, TryOut tryOut) {
        this.policies = policies;
        this.tryOut = tryOut;
    }

    /** {@code state} is NOW, LATER or PAST. */
    record KeptRoutes(
            long id,
            LocalDate from,
            PolicyContent content,
            String note,
            String madeBy,
            Instant madeAt,
            @Nullable String confirmedBy,
            String state,
            boolean mayConfirm) {}

    record MarkChoice(String kind, String words) {}

    /** All sets of routes that were kept, and what they can be made of. */
    record RoutesView(List<KeptRoutes> kept, List<MarkChoice> marks, LocalDate earliest) {}

    record KeepRoutes(
            @NotNull LocalDate from,
            @NotNull @Size(max = 300) String note,
            @NotNull @Valid PolicyContent content) {}

    record CheckedRoutes(List<String> warnings) {}

    @GetMapping
    RoutesView all(Actor by) {
        List<Policies.Kept> kept = policies.all();
        Long now = policies.on(by.today()).id();
        return new RoutesView(
                kept.stream()
                        .map(one -> new KeptRoutes(
                                one.id(),
                                one.from(),
                                one.content(),
                                one.note(),
                                one.madeBy(),
                                one.madeAt(),
                                one.confirmedBy(),
                                state(one, now, by.today()),
                                one.confirmedOn() == null && !one.maker().equals(by.person())))
                        .toList(),
                java.util.Arrays.stream(MarkKind.values())
                        .map(kind -> new MarkChoice(kind.name(), kind.words()))
                        .toList(),
                by.today().plusDays(1));
    }

    private static String state(Policies.Kept one, @Nullable Long now, LocalDate today) {
        LocalDate confirmed = one.confirmedOn();
        if (confirmed == null) {
            return "PROPOSED";
        }
        if (now != null && one.id() == now) {
            return "NOW";
        }
        return one.from().isAfter(today) || !confirmed.isBefore(today) ? "LATER" : "PAST";
    }

    @PostMapping
    @Needs(Deed.SET_ROUTES)
    void propose(Actor by, @Valid @RequestBody KeepRoutes wanted) {
        policies.propose(by, wanted.from(), wanted.note(), wanted.content());
    }

    /** A second person agrees to a set somebody else proposed. */
    @PostMapping("/{id}/confirm")
    @Needs(Deed.CONFIRM_ROUTES)
    void confirm(Actor by, @PathVariable long id) {
        policies.confirm(by, id);
    }

    @PostMapping("/check")
    @Needs(Deed.SET_ROUTES)
    CheckedRoutes check(Actor by, @Valid @RequestBody PolicyContent content) {
        return new CheckedRoutes(policies.check(by.today(), content));
    }

    @PostMapping("/try")
    @Needs(Deed.SET_ROUTES)
    TriedRoutes tryOut(Actor by, @Valid @RequestBody TryRoutes wanted) {
        return tryOut.of(by, wanted);
    }
}
