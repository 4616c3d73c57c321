package leveltally.server.frame;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.SocketTimeoutException;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessResourceFailureException;

/** What is said to be silence, and what is an answer. */
class SilentDatabaseWordsTest {
    private static boolean silent(Exception cause) {
        return SilentDatabase.isBehind(new DataAccessResourceFailureException("wrapped", cause));
    }

    @Test
    void noConnectionALostOneAndOneOutOfTimeAreSilence() {
        assertThat(silent(new SQLTransientConnectionException("the pool has none", null, 0)))
                .isTrue();
        // the pool hands on the number of whatever failed last
        assertThat(silent(new SQLTransientConnectionException("the pool has none", "42000", -1)))
                .isTrue();
        assertThat(silent(new SQLException("connection reset", "08000", 0))).isTrue();
        assertThat(silent(new SQLException("read", "HY000", 0, new SocketTimeoutException())))
                .isTrue();
        assertThat(silent(new SQLException("too long", "70100", 1969))).isTrue();
    }

    /** The driver gives what a trigger refuses the class of a lost connection. */
    @Test
    void aLawThatATriggerHoldsIsAnAnswer() {
        assertThat(silent(new SQLTransientConnectionException("L7: by two people", "45000", 1644)))
                .isFalse();
        assertThat(silent(new SQLException("deadlock", "40001", 1213))).isFalse();
        assertThat(silent(new SQLException("duplicate", "23000", 1062))).isFalse();
    }
}
