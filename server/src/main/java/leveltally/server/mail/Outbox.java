package leveltally.server.mail;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import leveltally.core.people.PersonId;
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

    Outbox(JdbcClient jdbc, JdbcOperations many, WorkIds ids, People people, Settings settings) {
        this.jdbc = jdbc;
        this.many = many;
        this.ids = ids;
        this.people = people;
        this.settings = settings;
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
    public boolean again(long id, Instant now) {
        return jdbc.sql(
                                "UPDATE mail SET state = 'WAITING', tries = 0, next_try_at = ? WHERE id = ? AND state <> 'SENT'")
                        .params(Timestamp.from(now), id)
                        .update()
                == 1;
    }
}
