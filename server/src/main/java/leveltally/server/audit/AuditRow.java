package leveltally.server.audit;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import leveltally.core.audit.AuditRecord;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

@Entity
@Table(name = "audit_record")
class AuditRow {
    @Id
    Long sequence;

    Instant at;
    long personId;
    String origin;
    String deed;
    String subject;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    String detail;

    String previousHash;
    String hash;

    protected AuditRow() {}

    AuditRow(AuditRecord record) {
        sequence = record.sequence();
        at = record.at();
        personId = record.person();
        origin = record.from();
        deed = record.deed();
        subject = record.subject();
        detail = record.detail();
        previousHash = record.previousHash();
        hash = record.hash();
    }
}
