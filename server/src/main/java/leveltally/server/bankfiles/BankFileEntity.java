package leveltally.server.bankfiles;

import jakarta.persistence.*;
import java.time.Instant;
import java.time.LocalDate;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.FileState;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** A file made for the bank; its bytes, which stand beside it in parts, never change. */
@Entity
@DynamicUpdate
@Table(name = "bank_file")
class BankFileEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    long bankAccountId;

    @Enumerated(EnumType.STRING)
    FilePurpose purpose;

    /** Of a positive pay file. */
    @Nullable
    Long layoutId;

    long serial;
    String fileName;
    Instant madeAt;
    long madeBy;

    /** The company's day on which it was made. */
    LocalDate madeOn;

    long bytes;
    String contentHash;
    int items;
    String currency;
    long totalMinor;
    int voids;
    long voidMinor;

    @Enumerated(EnumType.STRING)
    FileState state;

    @Nullable
    Instant answeredAt;

    @Nullable
    Long answeredBy;

    String answerNote;

    /** It tells again what was told, on the bank's request. */
    boolean anew;

    /** Which of the waiting events it was narrowed to, in words. */
    String narrowed;

    @Nullable
    Long followsId;

    /** Of a file that pays: the way it goes, the day payees have the money, and its place among the files of its day. */
    @Nullable
    Long wayId;

    @Nullable
    LocalDate paysOn;

    @Nullable
    Integer dayNumber;

    /** What its number of the day counts within; empty for files that carry no payments. */
    String dayGroup = "";

    @Version
    long version;
}
