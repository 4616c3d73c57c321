package leveltally.server.approval;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who stands in for whom. */
@RestController
@RequestMapping("/api/deputies")
@Needs(Deed.READ)
class DeputyController {
    private final Deputies deputies;

    DeputyController(Deputies deputies) {
        this.deputies = deputies;
    }

    /** {@code state} is NOW, LATER or OVER; {@code mayEnd} is true for whom it is for and for controllers. */
    record DeputyView(
            long id,
            String person,
            String deputy,
            LocalDate from,
            LocalDate until,
            String namedBy,
            String state,
            boolean mayEnd) {}

    record NameDeputy(
            long person,
            long deputy,
            @NotNull LocalDate from,
            @NotNull LocalDate until) {}

    @GetMapping
    List<DeputyView> all(Actor by) {
        return deputies.all().stream().map(named -> view(named, by)).toList();
    }

    private static DeputyView view(Deputies.Named named, Actor by) {
        boolean over = named.ended() || named.until().isBefore(by.today());
        return new DeputyView(
                named.id(),
                named.person(),
                named.deputy(),
                named.from(),
                named.until(),
                named.namedBy(),
                over ? "OVER" : named.from().isAfter(by.today()) ? "LATER" : "NOW",
                !over && (named.personId() == by.person().value() || by.roles().contains(Role.CONTROLLER)));
    }

    @PostMapping
    @Needs(Deed.NAME_DEPUTY)
    void name(Actor by, @Valid @RequestBody NameDeputy wanted) {
        deputies.name(by, new PersonId(wanted.person()), new PersonId(wanted.deputy()), wanted.from(), wanted.until());
    }

    @PostMapping("/{id}/end")
    @Needs(Deed.NAME_DEPUTY)
    void end(Actor by, @PathVariable long id) {
        deputies.end(by, id);
    }
}
