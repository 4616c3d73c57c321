package leveltally.server.frame;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.SocketTimeoutException;
import java.sql.SQLException;
import org.hibernate.TransactionException;
import org.junit.jupiter.api.Test;
import org.springframework.orm.jpa.JpaSystemException;

/** What means that no answer came, and what is an answer. */
class SilentDatabaseTest {
    private static JpaSystemException wrapped(Exception cause) {
        return new JpaSystemException(new RuntimeException(cause));
    }

    @Test
    void aLostConnectionIsToldFromALaw() {
        assertThat(SilentDatabase.isBehind(wrapped(
                        new TransactionException("Unable to rollback", new SQLException("Connection is closed")))))
                .isTrue();
        assertThat(SilentDatabase.isBehind(wrapped(new SocketTimeoutException("Read timed out"))))
                .isTrue();
        assertThat(SilentDatabase.isBehind(wrapped(new SQLException("gone", "08000"))))
                .isTrue();
        assertThat(SilentDatabase.isBehind(wrapped(new SQLException("L4: what was paid stands", "45000", 1644))))
                .isFalse();
    }
}
