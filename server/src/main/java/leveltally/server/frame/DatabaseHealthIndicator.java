package leveltally.server.frame;

import org.springframework.boot.health.contributor.AbstractHealthIndicator;
import org.springframework.boot.health.contributor.Health;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * Whether the database answers, for readiness. The platform's own check asks the driver with a time-out of zero, which it
 * takes for ever; a statement ends with the connection's time-out.
 */
@Component
class DatabaseHealthIndicator extends AbstractHealthIndicator {
    private final JdbcClient jdbc;

    DatabaseHealthIndicator(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    protected void doHealthCheck(Health.Builder health) {
        jdbc.sql("SELECT 1").query(Integer.class).single();
        health.up();
    }
}
