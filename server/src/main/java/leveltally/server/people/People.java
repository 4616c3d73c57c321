package leveltally.server.people;

import jakarta.persistence.EntityManager;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The people who may sign in. */
@Service
public class People {
    static final int MOST_FAILURES = 8;
    static final Duration WINDOW = Duration.ofMinutes(15);
    private static final int SHORTEST_PASSWORD = 10;

    private final EntityManager entities;
    private final PasswordEncoder passwords;
    private final String nobodysHash;

    People(EntityManager entities, PasswordEncoder passwords) {
        this.entities = entities;
        this.passwords = passwords;
        this.nobodysHash = passwords.encode(UUID.randomUUID().toString());
    }

    /** A person as others may see them. */
    public record Person(PersonId id, String signIn, String name, Set<Role> roles) {}

    @Transactional
    public PersonId add(String signIn, String name, String password, Set<Role> roles, boolean demo) {
        if (password.length() < SHORTEST_PASSWORD) {
            throw Refusal.invalidField(
                    "password-short", "password", "A password has at least " + SHORTEST_PASSWORD + " characters.");
        }
        if (!signIn.matches("[a-z0-9.-]{2,40}") || name.isBlank() || name.length() > 80) {
            throw Refusal.invalidField(
                    "sign-in-name",
                    "signIn",
                    "A sign-in name has 2 to 40 small letters, digits, dots and hyphens; the full name is needed too.");
        }
        PersonEntity person = new PersonEntity();
        person.signIn = signIn;
        person.name = name.strip();
        person.passwordHash = passwords.encode(password);
        person.enabled = true;
        person.demo = demo;
        person.roles.addAll(roles);
        entities.persist(person);
        return new PersonId(person.id);
    }

    @Transactional(readOnly = true)
    public boolean nobodyExists() {
        return entities.createQuery("select count(p) from PersonEntity p", Long.class)
                        .getSingleResult()
                == 0;
    }

    /** Empty when nobody enabled has this id. */
    @Transactional(readOnly = true)
    public Optional<Person> find(PersonId id) {
        return Optional.ofNullable(entities.find(PersonEntity.class, id.value()))
                .filter(person -> person.enabled)
                .map(People::view);
    }

    @Transactional(readOnly = true)
    public List<Person> demoPeople() {
        return entities.createQuery(
                        "select p from PersonEntity p where p.demo and p.enabled order by p.id", PersonEntity.class)
                .getResultStream()
                .map(People::view)
                .toList();
    }

    /** Names by person, for screens that say who. */
    @Transactional(readOnly = true)
    public Map<Long, String> names() {
        return entities.createQuery("select p from PersonEntity p", PersonEntity.class)
                .getResultStream()
                .collect(Collectors.toMap(person -> person.id, person -> person.name));
    }

    /**
     * Checks a password, at most eight wrong ones in fifteen minutes per sign-in name.
     *
     * @throws Refusal with the same sentence for a wrong name and a wrong password
     */
    @Transactional(noRollbackFor = Refusal.class)
    public Person signIn(String signIn, String password, String origin, Instant now) {
        long failures = entities.createQuery(
                        "select count(a) from SignInAttempt a where a.signIn = :name and a.at > :since and not a.good",
                        Long.class)
                .setParameter("name", shortened(signIn))
                .setParameter("since", now.minus(WINDOW))
                .getSingleResult();
        if (failures >= MOST_FAILURES) {
            throw Refusal.notAllowed(
                    "too-many-tries",
                    "Too many wrong passwords for this name. Wait a quarter of an hour and try again.");
        }
        PersonEntity person = entities.createQuery(
                        "select p from PersonEntity p where p.signIn = :name", PersonEntity.class)
                .setParameter("name", signIn)
                .getResultStream()
                .findFirst()
                .orElse(null);
        // an unknown name costs as long as a known one, so that nobody learns which names exist
        String hash = person == null ? nobodysHash : person.passwordHash;
        boolean good = passwords.matches(password, hash) && person != null && person.enabled;
        SignInAttempt attempt = new SignInAttempt();
        attempt.signIn = shortened(signIn);
        attempt.origin = origin;
        attempt.at = now;
        attempt.good = good;
        entities.persist(attempt);
        if (person == null || !good) {
            throw Refusal.notAllowed("wrong-sign-in", "This name and password do not fit. Check both and try again.");
        }
        return view(person);
    }

    private static String shortened(String signIn) {
        return signIn.substring(0, Math.min(40, signIn.length()));
    }

    private static Person view(PersonEntity person) {
        return new Person(new PersonId(person.id), person.signIn, person.name, Set.copyOf(person.roles));
    }
}
