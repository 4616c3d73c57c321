package leveltally.server.approval;

import java.sql.Timestamp;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.approval.Approver;
import leveltally.core.approval.Completion;
import leveltally.core.approval.Policy;
import leveltally.core.approval.Route;
import leveltally.core.approval.Step;
import leveltally.core.approval.Takers;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * The routes the controller keeps, each set in force from a date. None is ever changed: a new set is written, and a batch
 * under way keeps the route it was sent on.
 */
@Service
public class Policies {
    private static final Policy ONE_APPROVER = new Policy(List.of(new Route(
            "One approver",
            Set.of(),
            List.of(),
            List.of(),
            Set.of(),
            List.of(Step.of("Approval", Takers.of(Role.APPROVER), 1)))));
    private static final String KEPT = "SELECT a.id, a.in_force_from, a.content, a.note, p.name AS maker, a.made_at,"
            + " q.name AS confirmer, a.confirmed_on, a.made_by"
            + " FROM approval_policy a JOIN person p ON p.id = a.made_by"
            + " LEFT JOIN person q ON q.id = a.confirmed_by";

    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final WorkIds ids;
    private final Deputies deputies;
    private final BankAccounts accounts;
    private final AuditTrail audit;

    Policies(
            JdbcClient jdbc, JsonMapper json, WorkIds ids, Deputies deputies, BankAccounts accounts, AuditTrail audit) {
        this.jdbc = jdbc;
        this.json = json;
        this.ids = ids;
        this.deputies = deputies;
        this.accounts = accounts;
        this.audit = audit;
    }

    /** @param id null before any was kept: then one approver is asked */
    record InForce(@Nullable Long id, Policy policy) {}

    /** A set of routes as it was proposed; {@code confirmedBy} is null while it waits for a second person. */
    record Kept(
            long id,
            LocalDate from,
            PolicyContent content,
            String note,
            String madeBy,
            Instant madeAt,
            @Nullable String confirmedBy,
            @Nullable LocalDate confirmedOn,
            PersonId maker) {}

    @Transactional(readOnly = true)
    InForce on(LocalDate day) {
        return jdbc.sql(KEPT + " WHERE a.in_force_from <= :day AND a.confirmed_on < :day"
                        + " ORDER BY a.in_force_from DESC, a.id DESC LIMIT 1")
                .param("day", day)
                .query((r, n) -> kept(r))
                .optional()
                .map(kept -> new InForce(kept.id(), kept.content().policy()))
                .orElseGet(() -> new InForce(null, ONE_APPROVER));
    }

    /** All sets of routes, the last in force first. */
    @Transactional(readOnly = true)
    List<Kept> all() {
        return jdbc.sql(KEPT + " ORDER BY a.in_force_from DESC, a.id DESC")
                .query((r, n) -> kept(r))
                .list();
    }

    private Kept kept(java.sql.ResultSet r) throws java.sql.SQLException {
        return new Kept(
                r.getLong("id"),
                r.getObject("in_force_from", LocalDate.class),
                json.readValue(r.getString("content"), PolicyContent.class),
                r.getString("note"),
                r.getString("maker"),
                r.getTimestamp("made_at").toInstant(),
                r.getString("confirmer"),
                r.getObject("confirmed_on", LocalDate.class),
                new PersonId(r.getLong("made_by")));
    }

    /** Agrees to a set of routes somebody else proposed; it is in force from its day, and not before tomorrow. */
    @Transactional
    public void confirm(Actor by, long id) {
        by.mayDo(Deed.CONFIRM_ROUTES);
        record Proposed(long by, String note, boolean confirmed) {}
        Proposed proposed = jdbc.sql(
                        "SELECT made_by, note, confirmed_by IS NOT NULL AS confirmed FROM approval_policy WHERE id = ? FOR UPDATE")
                .param(id)
                .query((r, n) -> new Proposed(r.getLong("made_by"), r.getString("note"), r.getBoolean("confirmed")))
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-routes", "There is no such set of routes. Look again."));
        if (proposed.confirmed()) {
            throw Refusal.conflict("confirmed-already", "Somebody agreed to these routes already. Look again.");
        }
        if (proposed.by() == by.person().value()) {
            throw Refusal.notAllowed(
                    "second-person", "You proposed these routes, so somebody else must agree to them.");
        }
        jdbc.sql("UPDATE approval_policy SET confirmed_by = ?, confirmed_at = ?, confirmed_on = ? WHERE id = ?")
                .params(by.person().value(), Timestamp.from(by.now()), by.today(), id)
                .update();
        audit.record(by, "confirm routes", "routes", Map.of("set", id, "note", proposed.note()));
    }

    /** Proposes a set of routes; a second person confirms it. Batches under way are not touched. */
    @Transactional
    public long propose(Actor by, LocalDate from, String note, PolicyContent content) {
        by.mayDo(Deed.SET_ROUTES);
        check(by.today(), content);
        if (!from.isAfter(by.today())) {
            throw Refusal.invalidField(
                    "past-date",
                    "from",
                    "Routes come in force tomorrow at the earliest, after a second person agreed. Choose a later day.");
        }
        if (note.isBlank()) {
            throw Refusal.invalidField("note-missing", "note", "Say why the routes change, for whoever asks later.");
        }
        InForce before = on(from);
        long id = ids.supply().next();
        jdbc.sql(
                        "INSERT INTO approval_policy (id, in_force_from, content, note, made_by, made_at) VALUES (?,?,?,?,?,?)")
                .params(
                        id,
                        from,
                        json.writeValueAsString(content.tidied()),
                        note.strip(),
                        by.person().value(),
                        Timestamp.from(by.now()))
                .update();
        audit.record(
                by,
                "propose routes",
                "routes",
                Map.of(
                        "from",
                        from.toString(),
                        "note",
                        note.strip(),
                        "before",
                        words(before.policy()),
                        "after",
                        words(content.policy())));
        return id;
    }

    private static List<String> words(Policy policy) {
        return policy.routes().stream().map(route -> RouteWords.of(route)).toList();
    }

    /**
     * @return what to warn of: routes that could never be completed, once nobody takes two steps or approves their own work
     * @throws Refusal naming what is wrong
     */
    @Transactional(readOnly = true)
    List<String> check(LocalDate today, PolicyContent content) {
        Policy policy = content.policy();
        Roster roster = deputies.roster(today);
        for (long named : content.named()) {
            Approver person = roster.people().get(new PersonId(named));
            if (person == null || !Deed.APPROVE.allowedTo(person.roles())) {
                throw Refusal.invalidField(
                        "routes",
                        "routes",
                        (person == null
                                        ? "Somebody named in a step can no longer sign in"
                                        : person.name() + " may not approve")
                                + ". Name approvers or controllers.");
            }
        }
        Set<Long> known = accounts.list().stream()
                .map(account -> account.id().value())
                .collect(java.util.stream.Collectors.toSet());
        for (PolicyContent.RouteContent route : content.routes()) {
            if (!known.containsAll(route.accounts())) {
                throw Refusal.invalidField(
                        "routes", "routes", "Route “" + route.name() + "” is for a bank account that does not exist.");
            }
        }
        return Completion.warnings(policy, roster.people().values());
    }
}
