package leveltally.server.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.BusinessDay;
import leveltally.server.frame.Settings;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out. */
@RestController
@RequestMapping("/api/session")
class SessionController {
    private final People people;
    private final Staff staff;
    private final Sessions sessions;
    private final Settings settings;
    private final BusinessDay day;
    private final AuditTrail audit;

    SessionController(
            People people, Staff staff, Sessions sessions, Settings settings, BusinessDay day, AuditTrail audit) {
        this.people = people;
        this.staff = staff;
        this.sessions = sessions;
        this.settings = settings;
        this.day = day;
        this.audit = audit;
    }

    /** {@code zone} is the time zone of the business day, in which instants are shown. */
    record SessionView(
            long personId,
            String name,
            Set<Role> roles,
            LocalDate today,
            boolean demo,
            boolean mustChangePassword,
            String zone) {}

    record DemoPerson(String signIn, String name, Set<Role> roles) {}

    record Door(boolean demo, String password, List<DemoPerson> people, boolean needsFirstAdministrator) {}

    record SignIn(
            @NotNull @Size(max = 100) String signIn,
            @NotNull @Size(max = 200) String password) {}

    record FirstAdministrator(
            @NotNull String code,
            @NotNull @Size(max = 40) String signIn,
            @NotNull @Size(max = 80) String name,
            @NotNull @Size(max = 200) String password) {}

    @GetMapping
    SessionView current(Actor by) {
        return view(by);
    }

    /** What the sign-in page needs to know before anyone is signed in. */
    @GetMapping("/door")
    Door door() {
        List<DemoPerson> offered = !settings.demo()
                ? List.of()
                : people.demoPeople().stream()
                        .map(person -> new DemoPerson(person.signIn(), person.name(), new TreeSet<>(person.roles())))
                        .toList();
        return new Door(settings.demo(), settings.demo() ? DemoPassword.VALUE : "", offered, people.nobodyExists());
    }

    @PostMapping
    SessionView signIn(@Valid @RequestBody SignIn wanted, HttpServletRequest request, HttpServletResponse response) {
        Instant now = Instant.now();
        People.Person person = people.signIn(wanted.signIn(), wanted.password(), request.getRemoteAddr(), now);
        HttpSession old = request.getSession(false);
        if (old != null) {
            old.invalidate();
        }
        var authorities = person.roles().stream()
                .map(role -> new SimpleGrantedAuthority("ROLE_" + role))
                .toList();
        var context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(
                String.valueOf(person.id().value()), null, authorities));
        SecurityContextHolder.setContext(context);
        new HttpSessionSecurityContextRepository().saveContext(context, request, response);
        request.getSession().setAttribute(Sessions.FROM, from(request));
        Actor by = new Actor(person.id(), person.name(), person.roles(), day.today(), now, request.getRemoteAddr());
        audit.record(by, "sign in", "person " + person.id().value(), Map.of());
        return view(by);
    }

    @DeleteMapping
    void signOut(Actor by, HttpServletRequest request) {
        audit.record(by, "sign out", "person " + by.person().value(), Map.of());
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
    }

    /** Where a request comes from, with the browser's name for itself. */
    private static String from(HttpServletRequest request) {
        String agent = request.getHeader("User-Agent");
        String told = agent == null ? "" : ", " + agent;
        return request.getRemoteAddr() + told.substring(0, Math.min(200, told.length()));
    }

    record ChangePassword(
            @NotNull @Size(max = 200) String old,
            @NotNull @Size(max = 200) String password) {}

    /** One's own sessions, the one in use marked. */
    @GetMapping("/all")
    List<PeopleController.OpenSession> all(Actor by, HttpServletRequest request) {
        return sessions.of(by.person(), request.getSession().getId()).stream()
                .map(PeopleController.OpenSession::of)
                .toList();
    }

    @PostMapping("/{key}/end")
    void endOne(Actor by, @PathVariable String key) {
        staff.endSession(by, by.person(), key);
    }

    /** Changes one's own password; every other session of one's own ends. */
    @PostMapping("/password")
    void changePassword(Actor by, @Valid @RequestBody ChangePassword wanted, HttpServletRequest request) {
        people.changeOwn(by, wanted.old(), wanted.password());
        sessions.endAll(by.person(), request.getSession().getId());
    }

    /** Makes the first administrator, once, with the code the installer configured. */
    @PostMapping("/first-administrator")
    void first(@Valid @RequestBody FirstAdministrator wanted, HttpServletRequest request) {
        people.first(wanted.code(), wanted.signIn(), wanted.name(), wanted.password(), request.getRemoteAddr());
    }

    private SessionView view(Actor by) {
        boolean mustChange =
                people.find(by.person()).map(People.Person::mustChangePassword).orElse(false);
        return new SessionView(
                by.person().value(),
                by.name(),
                new TreeSet<>(by.roles()),
                by.today(),
                settings.demo(),
                mustChange,
                day.zone().getId());
    }
}
