package leveltally.server.mail;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads what was told to whom by mail. */
@Component
class MailRows {
    private static final int MOST_LISTED = 300;

    private final JdbcClient jdbc;

    MailRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The newest mails, those in trouble first. */
    List<MailView> newest() {
        return jdbc.sql("""
                        SELECT m.id, p.name, m.address, m.subject, m.link, m.text, m.made_at, m.state, m.tries,
                          m.next_try_at, m.sent_at, m.trouble
                        FROM mail m JOIN person p ON p.id = m.person_id
                        ORDER BY m.trouble <> '' DESC, m.id DESC LIMIT :most
                        """)
                .param("most", MOST_LISTED)
                .query((r, n) -> {
                    var sent = r.getTimestamp("sent_at");
                    return new MailView(
                            r.getLong("id"),
                            r.getString("name"),
                            r.getString("address"),
                            r.getString("subject"),
                            r.getString("link"),
                            r.getString("text"),
                            r.getTimestamp("made_at").toInstant(),
                            r.getString("state"),
                            r.getInt("tries"),
                            r.getTimestamp("next_try_at").toInstant(),
                            sent == null ? null : sent.toInstant(),
                            r.getString("trouble"));
                })
                .list();
    }
}
