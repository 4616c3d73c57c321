package leveltally.server.people;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The people, their roles and their sessions. */
@RestController
@RequestMapping("/api/people")
@Needs(Deed.READ)
class PeopleController {
    private final Staff staff;
    private final People people;
    private final Sessions sessions;
    private final PersonChanges changes;

    PeopleController(Staff staff, People people, Sessions sessions, PersonChanges changes) {
        this.changes = changes;
        this.staff = staff;
        this.people = people;
        this.sessions = sessions;
    }

    record ColleagueView(long id, String name, Set<Role> roles) {}

    record MemberView(
            long id,
            String signIn,
            String name,
            String email,
            Set<Role> roles,
            boolean enabled,
            @Nullable Instant lastSignIn,
            int sessions,
            long version) {}

    record OpenSession(String key, Instant begun, Instant lastUsed, String from, boolean current) {
        static OpenSession of(Sessions.Open open) {
            return new OpenSession(open.key(), open.begun(), open.lastUsed(), open.from(), open.current());
        }
    }

    record AddPerson(
            @NotNull @Size(max = 40) String signIn,
            @NotNull @Size(max = 80) String name,
            @NotNull @Size(max = 120) String email,
            @NotNull @Size(max = 200) String password,
            @NotNull Set<@NotNull Role> roles) {}

    record ChangePerson(
            long version,
            @NotNull @Size(max = 80) String name,
            @NotNull @Size(max = 120) String email,
            @NotNull Set<@NotNull Role> roles) {}

    record AtVersion(long version) {}

    /** {@code password} true for a password, false for roles. */
    record PersonChangeView(
            long id,
            long person,
            String name,
            boolean password,
            Set<Role> roles,
            String proposedBy,
            boolean mayDecide) {}

    /** Roles and passwords that wait for a second person. */
    @GetMapping("/changes")
    @Needs(Deed.CONFIRM_PEOPLE)
    List<PersonChangeView> waiting(Actor by) {
        return changes.waiting().stream()
                .map(one -> new PersonChangeView(
                        one.id(),
                        one.person(),
                        one.name(),
                        one.password(),
                        new TreeSet<>(one.roles()),
                        one.proposedBy(),
                        one.proposedById() != by.person().value()
                                && one.person() != by.person().value()))
                .toList();
    }

    @PostMapping("/changes/{id}/confirm")
    @Needs(Deed.CONFIRM_PEOPLE)
    void confirm(Actor by, @PathVariable long id) {
        changes.confirm(by, id);
    }

    @PostMapping("/changes/{id}/refuse")
    @Needs(Deed.CONFIRM_PEOPLE)
    void refuse(Actor by, @PathVariable long id) {
        changes.refuse(by, id);
    }

    /** {@code waits} is true where a part of it waits for a second person. */
    record PersonKept(boolean waits) {}

    record NewPassword(@NotNull @Size(max = 200) String password) {}

    /** Who may sign in, for choices. */
    @GetMapping("/names")
    List<ColleagueView> names() {
        return people.enabled().stream()
                .map(p -> new ColleagueView(p.id().value(), p.name(), new TreeSet<>(p.roles())))
                .toList();
    }

    @GetMapping
    @Needs(Deed.CHANGE_PEOPLE)
    List<MemberView> all() {
        return staff.all().stream()
                .map(m -> new MemberView(
                        m.id(),
                        m.signIn(),
                        m.name(),
                        m.email(),
                        m.roles(),
                        m.enabled(),
                        m.lastSignIn(),
                        m.sessions(),
                        m.version()))
                .toList();
    }

    @PostMapping
    @Needs(Deed.CHANGE_PEOPLE)
    PersonKept add(Actor by, @Valid @RequestBody AddPerson wanted) {
        return kept(staff.add(by, wanted.signIn(), wanted.name(), wanted.email(), wanted.password(), wanted.roles()));
    }

    @PostMapping("/{id}")
    @Needs(Deed.CHANGE_PEOPLE)
    PersonKept change(Actor by, @PathVariable long id, @Valid @RequestBody ChangePerson wanted) {
        staff.change(by, new PersonId(id), wanted.version(), wanted.name(), wanted.email(), wanted.roles());
        return kept(new PersonId(id));
    }

    @PostMapping("/{id}/disable")
    @Needs(Deed.CHANGE_PEOPLE)
    void disable(Actor by, @PathVariable long id, @RequestBody AtVersion at) {
        staff.disable(by, new PersonId(id), at.version());
    }

    @PostMapping("/{id}/enable")
    @Needs(Deed.CHANGE_PEOPLE)
    void enable(Actor by, @PathVariable long id, @RequestBody AtVersion at) {
        staff.enable(by, new PersonId(id), at.version());
    }

    @PostMapping("/{id}/password")
    @Needs(Deed.CHANGE_PEOPLE)
    PersonKept password(Actor by, @PathVariable long id, @Valid @RequestBody NewPassword wanted) {
        staff.setPassword(by, new PersonId(id), wanted.password());
        return kept(new PersonId(id));
    }

    private PersonKept kept(PersonId id) {
        return new PersonKept(changes.waits(id));
    }

    @GetMapping("/{id}/sessions")
    @Needs(Deed.CHANGE_PEOPLE)
    List<OpenSession> sessions(@PathVariable long id) {
        return sessions.of(new PersonId(id), null).stream().map(OpenSession::of).toList();
    }

    @PostMapping("/{id}/sessions/{key}/end")
    @Needs(Deed.CHANGE_PEOPLE)
    void endSession(Actor by, @PathVariable long id, @PathVariable String key) {
        staff.endSession(by, new PersonId(id), key);
    }
}
