package leveltally.server.payments;

import jakarta.persistence.*;
import java.time.Instant;
import java.time.LocalDate;
import leveltally.core.payments.PaymentState;

/** One step in the life of a payment; written once. */
@Entity
@Table(name = "payment_event")
@IdClass(PaymentEventEntity.Key.class)
class PaymentEventEntity {
    record Key(long paymentId, int step) {}

    @Id
    long paymentId;

    /** 1, 2, 3 … in the life of its payment, whatever the clocks say. */
    @Id
    int step;

    Instant at;
    LocalDate businessDate;
    long personId;

    @Enumerated(EnumType.STRING)
    PaymentState toState;

    String why;
}
