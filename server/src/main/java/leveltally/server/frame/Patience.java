package leveltally.server.frame;

import java.sql.SQLException;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.datasource.DataSourceUtils;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionExecution;
import org.springframework.transaction.TransactionExecutionListener;

/**
 * How long the answer of the database is waited for. The pool's connections wait a few seconds (see {@code
 * application.yml}), enough for whatever somebody looks at; a deed over thousands of rows has longer statements, and its
 * connection waits longer until it returns to the pool.
 */
@Component
public class Patience implements TransactionExecutionListener {
    private static final int DEED_MS = 60_000;
    private static final int WHOLE_TABLES_MS = 600_000;

    private final DataSource database;

    Patience(DataSource database) {
        this.database = database;
    }

    @Override
    public void afterBegin(TransactionExecution transaction, @Nullable Throwable failure) {
        if (failure == null && !transaction.isReadOnly()) {
            waitFor(DEED_MS);
        }
    }

    /** The transaction under way reads whole tables, as the proof does. */
    public void forWholeTables() {
        waitFor(WHOLE_TABLES_MS);
    }

    private void waitFor(int milliseconds) {
        var connection = DataSourceUtils.getConnection(database);
        try {
            connection.setNetworkTimeout(Runnable::run, milliseconds);
        } catch (SQLException broken) {
            throw new IllegalStateException("the connection does not take its time-out", broken);
        } finally {
            DataSourceUtils.releaseConnection(connection, database);
        }
    }
}
