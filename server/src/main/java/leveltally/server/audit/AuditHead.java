package leveltally.server.audit;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;

/** The end of the chain, and the lock that keeps it one chain. */
@Entity
class AuditHead {
    @Id
    Long id;

    long sequence;
    String hash;
}
