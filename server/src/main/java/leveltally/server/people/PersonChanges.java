package leveltally.server.people;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.people.Trust;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Roles that let money out, and passwords of who holds one: proposed by an administrator, agreed to by a second person. */
@Service
public class PersonChanges {
    private static final String ROLES = "ROLES";
    private static final String PASSWORD = "PASSWORD";

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final Sessions sessions;
    private final ApplicationEventPublisher events;
    private final AuditTrail audit;

    PersonChanges(
            EntityManager entities,
            JdbcClient jdbc,
            WorkIds ids,
            Sessions sessions,
            ApplicationEventPublisher events,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.ids = ids;
        this.sessions = sessions;
        this.events = events;
        this.audit = audit;
    }

    /** Somebody else set this person's password. */
    public record PasswordWasSet(PersonId person, String by, Instant at) {}

    /** What waits for a second person. */
    record Waiting(
            long id,
            long person,
            String name,
            boolean password,
            Set<Role> roles,
            long proposedById,
            String proposedBy) {}

    void propose(Actor by, PersonId person, Set<Role> roles) {
        insert(by, person, ROLES, roles.stream().sorted().map(Enum::name).collect(Collectors.joining(",")), "");
        audit.record(by, "propose roles", Staff.subject(person.value()), Map.of("roles", Staff.words(roles)));
    }

    void propose(Actor by, PersonId person, String passwordHash) {
        insert(by, person, PASSWORD, "", passwordHash);
        audit.record(by, "propose password", Staff.subject(person.value()), Map.of());
    }

    private void insert(Actor by, PersonId person, String what, String roles, String hash) {
        try {
            jdbc.sql("""
                            INSERT INTO person_change (id, person_id, what, roles, password_hash, proposed_by, proposed_at,
                              state) VALUES (:id, :person, :what, :roles, :hash, :by, :at, 'PROPOSED')
                            """)
                    .param("id", ids.supply().next())
                    .param("person", person.value())
                    .param("what", what)
                    .param("roles", roles)
                    .param("hash", hash)
                    .param("by", by.person().value())
                    .param("at", Timestamp.from(by.now()))
                    .update();
        } catch (DuplicateKeyException waits) {
            throw Refusal.conflict(
                    "change-waits",
                    "Such a change of this person waits for a second person already. Have it confirmed or refused first.");
        }
    }

    @Transactional(readOnly = true)
    boolean waits(PersonId id) {
        return jdbc.sql("SELECT EXISTS (SELECT 1 FROM person_change WHERE waiting_person_id = :person)")
                .param("person", id.value())
                .query(Boolean.class)
                .single();
    }

    @Transactional(readOnly = true)
    List<Waiting> waiting() {
        return jdbc.sql("""
                        SELECT c.id, c.person_id, p.name AS person_name, c.what, c.roles, c.proposed_by, q.name AS other_name FROM person_change c
                        JOIN person p ON p.id = c.person_id JOIN person q ON q.id = c.proposed_by
                        WHERE c.state = 'PROPOSED' ORDER BY c.id LIMIT 200
                        """)
                .query((r, n) -> new Waiting(
                        r.getLong("id"),
                        r.getLong("person_id"),
                        r.getString("person_name"),
                        r.getString("what").equals(PASSWORD),
                        roles(r.getString("roles")),
                        r.getLong("proposed_by"),
                        r.getString("other_name")))
                .list();
    }

    private static Set<Role> roles(String kept) {
        return Arrays.stream(kept.split(","))
                .filter(name -> !name.isEmpty())
                .map(Role::valueOf)
                .collect(Collectors.toUnmodifiableSet());
    }

    /** Agrees: the roles are given, or the password holds. */
    @Transactional
    public void confirm(Actor by, long id) {
        Proposed proposed = lock(by, id);
        decide(by, id, "CONFIRMED");
        PersonEntity person = entities.find(PersonEntity.class, proposed.person());
        entities.refresh(person, LockModeType.PESSIMISTIC_WRITE);
        if (proposed.what().equals(PASSWORD)) {
            putPassword(by, person, proposed.hash());
        } else {
            person.roles.addAll(roles(proposed.roles()));
            entities.flush();
            audit.record(
                    by,
                    "confirm roles",
                    Staff.subject(person.id),
                    Map.of("roles", Staff.words(roles(proposed.roles()))));
        }
    }

    @Transactional
    public void refuse(Actor by, long id) {
        Proposed proposed = lock(by, id);
        decide(by, id, "REFUSED");
        audit.record(by, "refuse change of person", Staff.subject(proposed.person()), Map.of("what", proposed.what()));
    }

    private record Proposed(long person, String what, String roles, String hash) {}

    private Proposed lock(Actor by, long id) {
        by.mayDo(Deed.CONFIRM_PEOPLE);
        return jdbc.sql("SELECT person_id, what, roles, password_hash, proposed_by FROM person_change"
                        + " WHERE id = ? AND state = 'PROPOSED' FOR UPDATE")
                .param(id)
                .query((r, n) -> {
                    Trust.checkSecond(
                            by.person(), new PersonId(r.getLong("proposed_by")), new PersonId(r.getLong("person_id")));
                    return new Proposed(
                            r.getLong("person_id"),
                            r.getString("what"),
                            r.getString("roles"),
                            r.getString("password_hash"));
                })
                .optional()
                .orElseThrow(() -> Refusal.conflict(
                        "decided-already", "This does not wait any more: somebody decided on it. Look again."));
    }

    private void decide(Actor by, long id, String state) {
        jdbc.sql("UPDATE person_change SET state = ?, decided_by = ?, decided_at = ? WHERE id = ?")
                .params(state, by.person().value(), Timestamp.from(by.now()), id)
                .update();
    }

    /** The password holds: sessions end, it is changed at the next sign-in, and its owner is told. */
    void putPassword(Actor by, PersonEntity person, String hash) {
        person.passwordHash = hash;
        person.passwordAt = by.now();
        person.mustChangePassword = true;
        entities.flush();
        sessions.endAll(new PersonId(person.id), null);
        audit.record(by, "set password", Staff.subject(person.id), Map.of());
        events.publishEvent(new PasswordWasSet(new PersonId(person.id), by.name(), by.now()));
    }
}
