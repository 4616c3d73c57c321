package leveltally.server.invoices;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.audit.AuditTrail;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Holds on invoices: set, and released by who may. */
@Service
public class Holds {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final AuditTrail audit;

    Holds(EntityManager entities, JdbcClient jdbc, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
    }

    /** Holds an invoice; on one that is held already the first holder stays, and both reasons stand. */
    @Transactional
    public void hold(Actor by, InvoiceId id, String reason) {
        by.mayDo(Deed.HOLD);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why this invoice is held.");
        }
        holdAsAsked(by, by.person(), id, reason);
    }

    /**
     * Holds an invoice as part of a deed that was asked for by one who may, and is done by another.
     *
     * @param holder who asked, and may release it
     */
    @Transactional
    public void holdAsAsked(Actor by, PersonId holder, InvoiceId id, String reason) {
        InvoiceEntity row = held(id);
        String first = row.holdReason;
        if (first == null) {
            row.heldBy = holder.value();
            row.holdReason = reason.strip();
        } else {
            String both = first + "; " + reason.strip();
            row.holdReason = both.substring(0, Math.min(200, both.length()));
        }
        audit.record(by, "hold invoice", "invoice " + row.id, Map.of("reason", reason.strip()));
    }

    /** Ends the hold of an invoice: a controller, or whoever set it; a hand in the batch it stands in (law L7). */
    @Transactional
    public void release(Actor by, InvoiceId id, String reason) {
        by.mayDo(Deed.HOLD);
        InvoiceEntity row = held(id);
        String before = row.holdReason;
        if (before == null) {
            throw Refusal.conflict("not-held", "Entry " + row.id + " is not held. Look at it again.");
        }
        Long holder = row.heldBy;
        if (!by.roles().contains(Role.CONTROLLER)
                && (holder == null || holder != by.person().value())) {
            throw Refusal.notAllowed(
                    "not-your-hold", "Only whoever set this hold, or a controller, releases it. Ask one of them.");
        }
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why this invoice may be paid.");
        }
        try {
            jdbc.sql("INSERT IGNORE INTO invoice_release (invoice_id, person_id) VALUES (:invoice, :person)")
                    .param("invoice", row.id)
                    .param("person", by.person().value())
                    .update();
        } catch (DataAccessException lawL7) {
            throw Refusal.notAllowed(
                    "own-approval",
                    "You approved the payment of this invoice, so somebody else must release its hold.");
        }
        row.holdReason = null;
        row.heldBy = null;
        audit.record(by, "release invoice", "invoice " + row.id, Map.of("before", before, "reason", reason.strip()));
    }

    private InvoiceEntity held(InvoiceId id) {
        InvoiceEntity row = entities.find(InvoiceEntity.class, id.value());
        if (row == null) {
            throw OpenItems.unknown(id.value());
        }
        entities.refresh(row, LockModeType.PESSIMISTIC_WRITE);
        return row;
    }
}
