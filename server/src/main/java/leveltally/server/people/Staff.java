package leveltally.server.people;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.people.Trust;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Lets people in, changes what they are trusted with, and shuts them out. */
@Service
public class Staff {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final People people;
    private final Sessions sessions;
    private final PersonChanges changes;
    private final AuditTrail audit;

    Staff(
            EntityManager entities,
            JdbcClient jdbc,
            People people,
            Sessions sessions,
            PersonChanges changes,
            AuditTrail audit) {
        this.changes = changes;
        this.entities = entities;
        this.jdbc = jdbc;
        this.people = people;
        this.sessions = sessions;
        this.audit = audit;
    }

    /** A person as the administrator sees them. */
    record Member(
            long id,
            String signIn,
            String name,
            String email,
            Set<Role> roles,
            boolean enabled,
            @Nullable Instant lastSignIn,
            int sessions,
            long version) {}

    @Transactional(readOnly = true)
    List<Member> all() {
        Map<Long, Integer> open = sessions.counts();
        Map<String, Instant> last = new java.util.HashMap<>();
        jdbc.sql("SELECT sign_in, MAX(at) AS last_at FROM sign_in_attempt WHERE good GROUP BY sign_in")
                .query(r -> {
                    last.put(r.getString("sign_in"), r.getTimestamp("last_at").toInstant());
                });
        return entities.createQuery("select p from PersonEntity p order by p.enabled desc, p.name", PersonEntity.class)
                .getResultStream()
                .map(p -> new Member(
                        p.id,
                        p.signIn,
                        p.name,
                        p.email,
                        new TreeSet<>(p.roles),
                        p.enabled,
                        last.get(p.signIn),
                        open.getOrDefault(p.id, 0),
                        p.version))
                .toList();
    }

    /** Adds a person; roles that let money out wait for a second person. */
    @Transactional
    public PersonId add(Actor by, String signIn, String name, String email, String password, Set<Role> roles) {
        by.mayDo(Deed.CHANGE_PEOPLE);
        Trust.checkRoles(by.person(), new PersonId(0), Set.of(), roles);
        Set<Role> byTwo = Trust.byTwo(roles);
        Set<Role> now = new TreeSet<>(roles);
        now.removeAll(byTwo);
        PersonId id = people.add(signIn, name, email, password, now, false);
        entities.find(PersonEntity.class, id.value()).mustChangePassword = true;
        entities.flush();
        audit.record(by, "add person", subject(id.value()), Map.of("name", name.strip(), "roles", words(now)));
        if (!byTwo.isEmpty()) {
            changes.propose(by, id, byTwo);
        }
        return id;
    }

    /** Changes a person; roles that let money out wait for a second person, all else holds at once. */
    @Transactional
    public void change(Actor by, PersonId id, long version, String name, String email, Set<Role> roles) {
        by.mayDo(Deed.CHANGE_PEOPLE);
        PersonEntity person = lock(id, version);
        Set<Role> before = Set.copyOf(person.roles);
        Trust.checkRoles(by.person(), id, before, roles);
        Trust.checkAdministrators(
                isAdministrator(person), person.enabled && roles.contains(Role.ADMINISTRATOR), others(id));
        String told = person.name + ", " + person.email + ", " + words(before);
        People.describe(person, name, email);
        Set<Role> byTwo = new TreeSet<>(Trust.byTwo(roles));
        byTwo.removeAll(before);
        Set<Role> now = new TreeSet<>(roles);
        now.removeAll(byTwo);
        person.roles.retainAll(now);
        person.roles.addAll(now);
        audit.record(
                by,
                "change person",
                subject(person.id),
                Map.of("before", told, "after", person.name + ", " + person.email + ", " + words(now)));
        if (!byTwo.isEmpty()) {
            changes.propose(by, id, byTwo);
        }
    }

    /** Shuts a person out at once: their sessions end, and no password opens another. */
    @Transactional
    public void disable(Actor by, PersonId id, long version) {
        by.mayDo(Deed.CHANGE_PEOPLE);
        PersonEntity person = lock(id, version);
        if (by.person().equals(id)) {
            throw Refusal.notAllowed("own-roles", "Nobody shuts themselves out. Ask another administrator to do it.");
        }
        Trust.checkAdministrators(isAdministrator(person), false, others(id));
        person.enabled = false;
        entities.flush();
        sessions.endAll(id, null);
        audit.record(by, "disable person", subject(person.id), Map.of("name", person.name));
    }

    @Transactional
    public void enable(Actor by, PersonId id, long version) {
        by.mayDo(Deed.CHANGE_PEOPLE);
        PersonEntity person = lock(id, version);
        person.enabled = true;
        audit.record(by, "enable person", subject(person.id), Map.of("name", person.name));
    }

    /**
     * Gives a person a new password, to be told to them by another way: their sessions end, they change it at the next
     * sign-in, and they are mailed. For whoever may let money out it waits for a second person.
     */
    @Transactional
    public void setPassword(Actor by, PersonId id, String password) {
        by.mayDo(Deed.CHANGE_PEOPLE);
        PersonEntity person = lock(id, null);
        if (by.person().equals(id)) {
            throw Refusal.notAllowed(
                    "own-password", "Your own password you change at your own page, with the old one.");
        }
        String hash = people.hash(person, password);
        if (!Trust.byTwo(person.roles).isEmpty()) {
            changes.propose(by, id, hash);
        } else {
            changes.putPassword(by, person, hash);
        }
    }

    /** Ends one session of a person. */
    @Transactional
    public void endSession(Actor by, PersonId id, String key) {
        by.mayDo(by.person().equals(id) ? Deed.OWN_SESSION : Deed.CHANGE_PEOPLE);
        sessions.end(id, key);
        audit.record(by, "end session", subject(id.value()), Map.of());
    }

    /** Locks the administrators as well, so that two of them cannot remove each other at one instant. */
    private PersonEntity lock(PersonId id, @Nullable Long version) {
        jdbc.sql("SELECT person_id FROM person_role WHERE role = 'ADMINISTRATOR' ORDER BY person_id FOR UPDATE")
                .query(Long.class)
                .list();
        PersonEntity person = entities.find(PersonEntity.class, id.value());
        if (person == null) {
            throw Refusal.notFound("no-person", "There is no such person. Choose one from the list.");
        }
        entities.refresh(person, LockModeType.PESSIMISTIC_WRITE);
        if (version != null && person.version != version) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody else changed this person meanwhile. Nothing of yours was saved; look again and repeat it.");
        }
        return person;
    }

    private static boolean isAdministrator(PersonEntity person) {
        return person.enabled && person.roles.contains(Role.ADMINISTRATOR);
    }

    private long others(PersonId than) {
        return jdbc.sql("SELECT COUNT(*) FROM person_role r JOIN person p ON p.id = r.person_id"
                        + " WHERE r.role = 'ADMINISTRATOR' AND p.enabled AND p.id <> ?")
                .param(than.value())
                .query(Long.class)
                .single();
    }

    static String subject(long id) {
        return "person " + id;
    }

    static String words(Set<Role> roles) {
        return String.join(
                ", ",
                roles.stream()
                        .sorted()
                        .map(role -> role.name().toLowerCase(java.util.Locale.ROOT))
                        .toList());
    }
}
