package leveltally.server.people;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.Id;
import jakarta.persistence.SequenceGenerator;
import java.time.Instant;
import org.hibernate.annotations.DynamicUpdate;

/** One try to sign in; too many bad ones slow the name down. */
@Entity
@DynamicUpdate
class SignInAttempt {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String signIn;
    String origin;
    Instant at;
    boolean good;

    /** turned away unread: too many wrong ones came before it */
    boolean blocked;
}
