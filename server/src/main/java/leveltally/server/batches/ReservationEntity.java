package leveltally.server.batches;

import jakarta.persistence.*;

/** Law L9: an invoice stands in at most one live claim, because it can be the key only once. */
@Entity
@Table(name = "reservation")
class ReservationEntity {
    @Id
    Long invoiceId;

    long batchId;
    long claimId;
}
