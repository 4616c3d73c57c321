package leveltally.server.approval;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.approval.Approver;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import leveltally.server.mail.Letter;
import leveltally.server.mail.Outbox;
import leveltally.server.people.People;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who stands in for whom in a range of days, under the same separations. */
@Service
public class Deputies {
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final People people;
    private final Outbox outbox;
    private final AuditTrail audit;

    Deputies(JdbcClient jdbc, WorkIds ids, People people, Outbox outbox, AuditTrail audit) {
        this.outbox = outbox;
        this.jdbc = jdbc;
        this.ids = ids;
        this.people = people;
        this.audit = audit;
    }

    /** One naming, as it is shown. */
    record Named(
            long id,
            long personId,
            String person,
            long deputyId,
            String deputy,
            LocalDate from,
            LocalDate until,
            String namedBy,
            boolean ended) {}

    /** Two statements, whatever their number. */
    @Transactional(readOnly = true)
    Roster roster(LocalDate today) {
        Map<PersonId, Approver> all = new LinkedHashMap<>();
        people.enabled().forEach(one -> all.put(one.id(), new Approver(one.id(), one.name(), one.roles())));
        Map<PersonId, List<Approver>> standsIn = new HashMap<>();
        jdbc.sql("SELECT deputy_id, person_id FROM deputy"
                        + " WHERE ended_at IS NULL AND from_day <= :today AND until_day >= :today ORDER BY id")
                .param("today", today)
                .query(r -> {
                    Approver of = all.get(new PersonId(r.getLong("person_id")));
                    if (of != null) {
                        standsIn.computeIfAbsent(new PersonId(r.getLong("deputy_id")), none -> new ArrayList<>())
                                .add(of);
                    }
                });
        return new Roster(all, standsIn);
    }

    /** Names a deputy: for oneself, or, as an administrator, for anybody; nobody makes a deputy of themselves. */
    @Transactional
    public void name(Actor by, PersonId person, PersonId deputy, LocalDate from, LocalDate until) {
        by.mayDo(Deed.NAME_DEPUTY);
        if (!person.equals(by.person()) && !by.roles().contains(Role.ADMINISTRATOR)) {
            throw Refusal.notAllowed(
                    "not-yours", "You name deputies for yourself; an administrator names them for others.");
        }
        if (deputy.equals(by.person())) {
            throw Refusal.notAllowed(
                    "own-deputy", "Nobody makes themselves a deputy. The person you would stand in for names you.");
        }
        if (person.equals(deputy)) {
            throw Refusal.invalidField(
                    "own-deputy", "deputy", "Nobody stands in for themselves. Choose somebody else.");
        }
        String who = approver(person, "person").name();
        String standing = approver(deputy, "deputy").name();
        if (until.isBefore(from) || until.isBefore(by.today())) {
            throw Refusal.invalidField(
                    "days", "until", "The last day lies before the first, or is over. Choose days from today on.");
        }
        boolean twice = all().stream()
                .anyMatch(one -> !one.ended()
                        && one.personId() == person.value()
                        && one.deputyId() == deputy.value()
                        && !one.from().isAfter(until)
                        && !one.until().isBefore(from));
        if (twice) {
            throw Refusal.conflict(
                    "deputy-already",
                    standing + " stands in for " + who + " on some of these days already. End that first, or choose"
                            + " other days.");
        }
        jdbc.sql("INSERT INTO deputy (id, person_id, deputy_id, from_day, until_day, named_by, named_at, version)"
                        + " VALUES (?, ?, ?, ?, ?, ?, ?, 0)")
                .params(
                        ids.supply().next(),
                        person.value(),
                        deputy.value(),
                        from,
                        until,
                        by.person().value(),
                        Timestamp.from(by.now()))
                .update();
        outbox.put(
                List.of(person, deputy),
                new Letter(
                        standing + " stands in for " + who,
                        List.of(by.name() + " named " + standing + " to stand in for " + who + " at approval, from "
                                + Dates.inWords(from) + " to " + Dates.inWords(until) + "."),
                        List.of(),
                        "Look at the deputies",
                        "/deputies"),
                by.now());
        audit.record(
                by,
                "name deputy",
                "person " + person.value(),
                Map.of("for", who, "deputy", standing, "from", Dates.inWords(from), "until", Dates.inWords(until)));
    }

    private People.Person approver(PersonId id, String field) {
        People.Person person = people.find(id)
                .orElseThrow(
                        () -> Refusal.invalidField("no-person", field, "This person cannot sign in. Choose another."));
        if (!Deed.APPROVE.allowedTo(person.roles())) {
            throw Refusal.invalidField(
                    "not-approver", field, person.name() + " may not approve. Choose an approver or a controller.");
        }
        return person;
    }

    @Transactional
    public void end(Actor by, long id) {
        by.mayDo(Deed.NAME_DEPUTY);
        Named named = all().stream()
                .filter(one -> one.id() == id && !one.ended())
                .findFirst()
                .orElseThrow(() -> Refusal.notFound("no-deputy", "This deputy ended already. Look at the list again."));
        if (named.personId() != by.person().value() && !by.roles().contains(Role.ADMINISTRATOR)) {
            throw Refusal.notAllowed("not-yours", "You end your own deputies; an administrator ends those of others.");
        }
        jdbc.sql("UPDATE deputy SET ended_at = ?, version = version + 1 WHERE id = ? AND ended_at IS NULL")
                .params(Timestamp.from(by.now()), id)
                .update();
        audit.record(
                by,
                "end deputy",
                "person " + named.personId(),
                Map.of("for", named.person(), "deputy", named.deputy()));
    }

    /** All that were ever named, the newest first. */
    @Transactional(readOnly = true)
    List<Named> all() {
        return jdbc.sql("""
                        SELECT d.id, d.person_id, p.name AS person_name, d.deputy_id, q.name AS other_name, d.from_day, d.until_day, b.name AS by_name,
                          d.ended_at IS NOT NULL AS ended
                        FROM deputy d JOIN person p ON p.id = d.person_id JOIN person q ON q.id = d.deputy_id
                        JOIN person b ON b.id = d.named_by ORDER BY d.until_day DESC, d.id DESC LIMIT 500
                        """)
                .query((r, n) -> new Named(
                        r.getLong("id"),
                        r.getLong("person_id"),
                        r.getString("person_name"),
                        r.getLong("deputy_id"),
                        r.getString("other_name"),
                        r.getObject("from_day", LocalDate.class),
                        r.getObject("until_day", LocalDate.class),
                        r.getString("by_name"),
                        r.getBoolean("ended")))
                .list();
    }
}
