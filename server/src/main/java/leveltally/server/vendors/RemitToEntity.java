package leveltally.server.vendors;

import jakarta.persistence.*;

/** Where payments to a vendor go. */
@Entity
@Table(name = "remit_to")
class RemitToEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long vendorId;
    String payee;
    String address;
    String postalCode;

    /** What a credit transfer needs; its content is sealed. */
    @org.jspecify.annotations.Nullable
    String bankDetailsSealed;
}
