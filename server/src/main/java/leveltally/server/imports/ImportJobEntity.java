package leveltally.server.imports;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import org.hibernate.annotations.DynamicUpdate;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** One file and how far it has come; the work on it goes on in whatever process finds it waiting. */
@Entity
@DynamicUpdate
@Table(name = "import_job")
class ImportJobEntity {
    @Id
    Long id;

    @Enumerated(EnumType.STRING)
    ImportKind kind;

    String fileName;

    @Enumerated(EnumType.STRING)
    ImportState state;

    long personId;
    Instant madeAt;
    LocalDate businessDate;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    @Nullable
    String headers;

    @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
    String choices;

    @Nullable
    Long wantedBy;

    long bytes;
    int rowsRead;
    int good;
    int refused;
    int duplicates;
    int broughtIn;

    @Nullable
    String trouble;

    @Version
    long version;
}
