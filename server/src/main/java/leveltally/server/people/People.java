package leveltally.server.people;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.Passwords;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.BusinessDay;
import leveltally.server.frame.DemoEncoder;
import leveltally.server.frame.Settings;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** The people who may sign in. */
@Service
public class People {
    static final int MOST_FAILURES = 8;
    static final Duration WINDOW = Duration.ofMinutes(15);
    private static final int MOST_FAILURES_FROM_ONE_ORIGIN = 100;
    /** Costs as much to compare as anybody's and fits no password. */
    private static final String NOBODYS_HASH = "{pbkdf2}" + "0".repeat(96);

    private static final String EMAIL = "[^@\\s]{1,60}@[^@\\s]{1,59}";

    private final EntityManager entities;
    private final PasswordEncoder passwords;
    private final CommonPasswords common;
    private final AuditTrail audit;
    private final Settings settings;
    private final BusinessDay day;
    private final TransactionTemplate transactions;

    People(
            EntityManager entities,
            PasswordEncoder passwords,
            CommonPasswords common,
            AuditTrail audit,
            Settings settings,
            BusinessDay day,
            TransactionTemplate transactions) {
        this.settings = settings;
        this.day = day;
        this.transactions = transactions;
        this.entities = entities;
        this.passwords = passwords;
        this.common = common;
        this.audit = audit;
    }

    /** A person as others may see them. */
    public record Person(
            PersonId id, String signIn, String name, String email, Set<Role> roles, boolean mustChangePassword) {}

    @Transactional
    public PersonId add(String signIn, String name, String email, String password, Set<Role> roles, boolean demo) {
        if (!signIn.matches("[a-z0-9.-]{2,40}")) {
            throw Refusal.invalidField(
                    "sign-in-name", "signIn", "A sign-in name has 2 to 40 small letters, digits, dots and hyphens.");
        }
        long taken = entities.createQuery("select count(p) from PersonEntity p where p.signIn = :name", Long.class)
                .setParameter("name", signIn)
                .getSingleResult();
        if (taken > 0) {
            throw Refusal.invalidField(
                    "sign-in-taken", "signIn", "Somebody has this sign-in name already. Choose another.");
        }
        PersonEntity person = new PersonEntity();
        person.signIn = signIn;
        describe(person, name, email);
        setPassword(person, password, Instant.now());
        person.enabled = true;
        person.demo = demo;
        person.roles.addAll(roles);
        entities.persist(person);
        return new PersonId(person.id);
    }

    static void describe(PersonEntity person, String name, String email) {
        if (name.isBlank() || name.length() > 80) {
            throw Refusal.invalidField("name-missing", "name", "Give the full name, in 80 characters.");
        }
        if (!email.isBlank() && !email.strip().matches(EMAIL)) {
            throw Refusal.invalidField(
                    "email", "email", "This is no mail address. Leave it empty to send no mail to this person.");
        }
        person.name = name.strip();
        person.email = email.strip();
    }

    void setPassword(PersonEntity person, String password, Instant now) {
        person.passwordHash = hash(person, password);
        person.passwordAt = now;
    }

    String hash(PersonEntity person, String password) {
        Passwords.check(password, person.signIn, person.name, common::include);
        return settings.demo() && password.equals(DemoPassword.VALUE)
                ? DemoEncoder.encode(password)
                : passwords.encode(password);
    }

    /** Changes one's own password; the old one is asked for again. */
    @Transactional
    public void changeOwn(Actor by, String old, String fresh) {
        by.mayDo(Deed.OWN_SESSION);
        PersonEntity person = entities.find(PersonEntity.class, by.person().value());
        if (!passwords.matches(old, person.passwordHash)) {
            throw Refusal.invalidField("wrong-password", "old", "This is not your present password. Type it again.");
        }
        setPassword(person, fresh, by.now());
        person.mustChangePassword = false;
        audit.record(by, "change own password", "person " + person.id, Map.of());
    }

    /** Makes the first administrator, once, with the code the installer configured; of several at one moment one is made. */
    @Transactional
    void first(String code, String signIn, String name, String password, String origin) {
        if (settings.setupCode().length() < 12
                || !MessageDigest.isEqual(
                        settings.setupCode().getBytes(StandardCharsets.UTF_8), code.getBytes(StandardCharsets.UTF_8))) {
            throw Refusal.notAllowed(
                    "setup-code",
                    "The setup code does not fit. It is the one set as LEVELTALLY_SETUP_CODE, at least 12 characters.");
        }
        audit.alone();
        if (!nobodyExists()) {
            throw Refusal.conflict("people-exist", "People exist already; an administrator adds more.");
        }
        Set<Role> roles = Set.of(Role.ADMINISTRATOR);
        PersonId id = add(signIn, name, "", password, roles, false);
        audit.record(
                new Actor(id, name, roles, day.today(), Instant.now(), origin),
                "make first administrator",
                "person " + id.value(),
                Map.of("name", name));
    }

    @Transactional(readOnly = true)
    public boolean nobodyExists() {
        return entities.createQuery("select p from PersonEntity p", PersonEntity.class)
                .getResultStream()
                .noneMatch(person -> settings.demo() || !person.demo);
    }

    /** Empty when nobody enabled has this id. */
    @Transactional(readOnly = true)
    public Optional<Person> find(PersonId id) {
        return Optional.ofNullable(entities.find(PersonEntity.class, id.value()))
                .filter(this::mayEnter)
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

    /** Everybody who may sign in. */
    @Transactional(readOnly = true)
    public List<Person> enabled() {
        return entities.createQuery("select p from PersonEntity p where p.enabled order by p.name", PersonEntity.class)
                .getResultStream()
                .filter(this::mayEnter)
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

    /** What a try to sign in is measured against, before the password is. */
    private record Tried(long attempt, @Nullable PersonEntity person) {}

    /**
     * Checks a password: at most eight wrong ones in fifteen minutes per name, and a hundred from one origin. Each try is
     * written down as a wrong one before it is checked, so that many at once are no way around; the slow check itself holds
     * no connection and no lock.
     *
     * @throws Refusal with the same sentence for a wrong name and a wrong password
     */
    public Person signIn(String signIn, String password, String origin, Instant now) {
        Tried tried = transactions.execute(status -> tried(signIn, origin, now));
        if (tried.attempt() < 0) {
            throw Refusal.notAllowed(
                    "too-many-tries",
                    "Too many wrong passwords for this name or from this place. Wait a quarter of an hour and try again.");
        }
        PersonEntity person = tried.person();
        // an unknown name costs as long as a known one, so that nobody learns which names exist
        String hash = person == null ? NOBODYS_HASH : person.passwordHash;
        boolean good = passwords.matches(password, hash) && person != null && mayEnter(person);
        transactions.executeWithoutResult(status -> answered(tried, good, signIn, origin, now));
        if (person == null || !good) {
            throw Refusal.notAllowed("wrong-sign-in", "This name and password do not fit. Check both and try again.");
        }
        return view(person);
    }

    private Tried tried(String signIn, String origin, Instant now) {
        PersonEntity person = entities.createQuery(
                        "select p from PersonEntity p left join fetch p.roles where p.signIn = :name",
                        PersonEntity.class)
                .setParameter("name", signIn)
                .getResultStream()
                .findFirst()
                .orElse(null);
        if (person != null) {
            entities.lock(person, LockModeType.PESSIMISTIC_WRITE);
        }
        SignInAttempt attempt = new SignInAttempt();
        attempt.signIn = shortened(signIn);
        attempt.origin = origin;
        attempt.at = now;
        attempt.blocked = failures("signIn", attempt.signIn, now) >= MOST_FAILURES
                || failures("origin", origin, now) >= MOST_FAILURES_FROM_ONE_ORIGIN;
        entities.persist(attempt);
        return new Tried(attempt.blocked ? -1 : attempt.id, person);
    }

    private long failures(String of, String value, Instant now) {
        return entities.createQuery(
                        "select count(a) from SignInAttempt a where a." + of
                                + " = :value and a.at > :since and not a.good and not a.blocked",
                        Long.class)
                .setParameter("value", value)
                .setParameter("since", now.minus(WINDOW))
                .getSingleResult();
    }

    private void answered(Tried tried, boolean good, String signIn, String origin, Instant now) {
        if (good) {
            entities.find(SignInAttempt.class, tried.attempt()).good = true;
            return;
        }
        audit.record(
                new Actor(new PersonId(0), "nobody", Set.of(), LocalDate.EPOCH, now, origin),
                "refuse sign-in",
                "sign-in " + shortened(signIn),
                Map.of("known", tried.person() != null));
    }

    /** Made-up people exist in the demo only: their password is published. */
    private boolean mayEnter(PersonEntity person) {
        return person.enabled && (settings.demo() || !person.demo);
    }

    private static String shortened(String signIn) {
        return signIn.substring(0, Math.min(40, signIn.length()));
    }

    private static Person view(PersonEntity person) {
        return new Person(
                new PersonId(person.id),
                person.signIn,
                person.name,
                person.email,
                Set.copyOf(person.roles),
                person.mustChangePassword);
    }
}
