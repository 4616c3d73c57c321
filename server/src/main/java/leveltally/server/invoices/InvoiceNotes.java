package leveltally.server.invoices;

import java.sql.Timestamp;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people write down beside a document; only added. */
@Service
public class InvoiceNotes {
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final AuditTrail audit;

    InvoiceNotes(JdbcClient jdbc, WorkIds ids, AuditTrail audit) {
        this.jdbc = jdbc;
        this.ids = ids;
        this.audit = audit;
    }

    @Transactional
    public void add(Actor by, InvoiceId id, String text) {
        by.mayDo(Deed.NOTE_INVOICE);
        String note = text.strip();
        if (note.isEmpty() || note.length() > 500) {
            throw Refusal.invalidField("note-missing", "text", "Write a note, in at most 500 characters.");
        }
        if (jdbc.sql("SELECT COUNT(*) FROM invoice WHERE id = ?")
                        .param(id.value())
                        .query(Long.class)
                        .single()
                == 0) {
            throw OpenItems.unknown(id.value());
        }
        jdbc.sql("INSERT INTO invoice_note (id, invoice_id, at, person_id, text) VALUES (?, ?, ?, ?, ?)")
                .params(
                        ids.supply().next(),
                        id.value(),
                        Timestamp.from(by.now()),
                        by.person().value(),
                        note)
                .update();
        audit.record(by, "note invoice", "invoice " + id.value(), Map.of("text", note));
    }
}
