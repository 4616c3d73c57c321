package leveltally.server.bankfiles;

import jakarta.persistence.*;
import leveltally.core.bankfiles.Layout;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One version of a bank file layout; written once. */
@Entity
@Table(name = "bank_file_layout")
class LayoutEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String name;
    int versionNumber;

    @Enumerated(EnumType.STRING)
    Layout.Use fileUse;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    String definition;
}
