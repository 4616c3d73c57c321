package leveltally.server.company;

import java.time.LocalDate;
import java.time.ZoneId;
import leveltally.server.frame.Settings;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The day that counts: fixed in the demo, the day in the company's zone otherwise. */
@Component
public class BusinessDay {
    private final JdbcClient jdbc;
    private final Settings settings;

    BusinessDay(JdbcClient jdbc, Settings settings) {
        this.jdbc = jdbc;
        this.settings = settings;
    }

    public LocalDate today() {
        return settings.demo() ? settings.demoDate() : LocalDate.now(zone());
    }

    /** The company's zone, or the one the machine is configured for. */
    public ZoneId zone() {
        return jdbc.sql("SELECT zone FROM company WHERE zone IS NOT NULL")
                .query(String.class)
                .optional()
                .map(ZoneId::of)
                .orElse(settings.zone());
    }
}
