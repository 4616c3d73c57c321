package leveltally.server.mail;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import leveltally.core.payments.PaymentId;
import leveltally.core.vendors.VendorId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads what was told to whom by mail. */
@Component
public class MailRows {
    private static final int MOST_LISTED = 300;
    private static final String ROW = """
            SELECT m.id, COALESCE(p.name, y.payee, v.name) AS name, m.person_id, m.payment_id, m.address, m.subject, m.link, m.text, m.made_at,
              m.state, m.tries, m.next_try_at, m.sent_at, m.trouble,
              EXISTS (SELECT 1 FROM mail l WHERE l.payment_id = m.payment_id AND l.id > m.id) AS sent_since
            FROM mail m LEFT JOIN person p ON p.id = m.person_id LEFT JOIN payment y ON y.id = m.payment_id
            LEFT JOIN vendor v ON v.id = m.vendor_id
            """;

    private final JdbcClient jdbc;

    MailRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Whose mail is looked at. */
    enum Whose {
        EVERYBODY("TRUE"),
        PEOPLE("m.person_id IS NOT NULL"),
        PAYEES("m.person_id IS NULL");

        private final String condition;

        Whose(String condition) {
            this.condition = condition;
        }
    }

    /** The newest mails, those in trouble first; both are found from an index, however many were ever sent. */
    List<MailView> newest(Whose whose) {
        return jdbc.sql(ROW
                        + " JOIN (SELECT id FROM (SELECT m.id FROM mail m WHERE m.state <> :sent AND m.trouble <> '' AND "
                        + whose.condition + " ORDER BY m.id DESC LIMIT :most) failing"
                        + " UNION SELECT id FROM (SELECT m.id FROM mail m WHERE " + whose.condition
                        + " ORDER BY m.id DESC LIMIT :most) new) listed ON listed.id = m.id"
                        + " ORDER BY m.trouble <> '' AND NOT EXISTS (SELECT 1 FROM mail l WHERE l.payment_id = m.payment_id"
                        + " AND l.id > m.id) DESC, m.id DESC LIMIT :most")
                .param("sent", MailState.SENT.name())
                .param("most", MOST_LISTED)
                .query((r, n) -> view(r))
                .list();
    }

    /** What its payee was told of a payment, the newest first. */
    public List<MailView> ofPayment(PaymentId payment) {
        return jdbc.sql(ROW + " WHERE m.payment_id = :payment ORDER BY m.id DESC")
                .param("payment", payment.value())
                .query((r, n) -> view(r))
                .list();
    }

    /** The sheets a vendor was sent of what it was paid, the newest first. */
    public List<MailView> sheetsOf(VendorId vendor) {
        return jdbc.sql(ROW + " WHERE m.vendor_id = :vendor ORDER BY m.id DESC LIMIT 20")
                .param("vendor", vendor.value())
                .query((r, n) -> view(r))
                .list();
    }

    private static MailView view(ResultSet r) throws SQLException {
        var sent = r.getTimestamp("sent_at");
        MailState state = MailState.valueOf(r.getString("state"));
        boolean sentSince = r.getBoolean("sent_since");
        return new MailView(
                r.getLong("id"),
                r.getString("name"),
                r.getString("address"),
                r.getString("subject"),
                r.getString("link"),
                r.getString("text"),
                r.getTimestamp("made_at").toInstant(),
                state.name(),
                sentSince && state != MailState.SENT ? state.words() + ", sent again since" : state.words(),
                r.getInt("tries"),
                r.getTimestamp("next_try_at").toInstant(),
                sent == null ? null : sent.toInstant(),
                r.getString("trouble"),
                r.getObject("person_id") == null,
                state != MailState.SENT && !r.getString("trouble").isEmpty() && !sentSince);
    }
}
