package leveltally.server.mail;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Settings;
import leveltally.server.frame.WorkIds;
import leveltally.server.people.People;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Mail that waits to be sent. It is written in the transaction of the deed it tells of, so that none goes out for what did
 * not happen, and sent afterwards, so that no deed waits for a mail server.
 */
@Service
public class Outbox {
    private final JdbcClient jdbc;
    private final JdbcOperations many;
    private final WorkIds ids;
    private final People people;
    private final Settings settings;
    private final AuditTrail audit;

    Outbox(JdbcClient jdbc, JdbcOperations many, WorkIds ids, People people, Settings settings, AuditTrail audit) {
        this.jdbc = jdbc;
        this.many = many;
        this.ids = ids;
        this.people = people;
        this.settings = settings;
        this.audit = audit;
    }

    /** Tells people who may sign in and have an address; the others see it on their screens. */
    @Transactional
    public void put(Collection<PersonId> to, Letter letter, Instant now) {
        if (to.isEmpty()) {
            return;
        }
        WorkIds.Supply supply = ids.supply();
        List<Object[]> rows = new ArrayList<>();
        for (People.Person person : people.enabled()) {
            if (to.contains(person.id()) && !person.email().isEmpty()) {
                rows.add(new Object[] {
                    supply.next(),
                    person.id().value(),
                    person.email(),
                    letter.subject(),
                    letter.text(settings.address(), person.name()),
                    letter.html(settings.address(), person.name()),
                    letter.path(),
                    Timestamp.from(now),
                    Timestamp.from(now)
                });
            }
        }
        many.batchUpdate("""
                INSERT INTO mail (id, person_id, address, subject, text, html, link, made_at, state, tries, next_try_at,
                  trouble) VALUES (?, ?, ?, ?, ?, ?, ?, ?, 'WAITING', 0, ?, '')
                """, rows);
    }

    /** Puts a mail that was given up, or waits for its next try, in line again. */
    @Transactional
    public void again(Actor by, long id) {
        by.mayDo(Deed.RETRY_MAIL);
        int waiting = jdbc.sql(
                        "UPDATE mail SET state = 'WAITING', tries = 0, next_try_at = ? WHERE id = ? AND state <> 'SENT'")
                .params(Timestamp.from(by.now()), id)
                .update();
        if (waiting == 0) {
            throw Refusal.conflict("mail-sent", "This mail was sent, or there is none. Look at the list again.");
        }
        audit.record(by, "send mail again", "mail " + id, Map.of());
    }
}
